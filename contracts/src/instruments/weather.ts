import * as z from 'zod';

/** The air outside during one hour of the clock at the site. */
export const weatherHour = z.object({
  airC: z.number().min(-45).max(60).meta({ unit: '°C' }),
  humidityPct: z.number().min(1).max(100).meta({ unit: '%' }),
  /** Share of the sky that clouds cover. */
  cloudFrac: z.number().min(0).max(1),
  windMPerS: z.number().min(0).max(80).meta({ unit: 'm/s' }),
  gustMPerS: z.number().min(0).max(120).meta({ unit: 'm/s' }),
  rainMm: z.number().min(0).max(300).meta({ unit: 'mm' }),
});
export type WeatherHour = z.infer<typeof weatherHour>;

/** A day at a place as a weather service tells it. */
export const weatherDay = z.object({
  on: z.iso.date(),
  /** In words, who says so. */
  source: z.string().max(120),
  /** Made up for trying the bench: nothing that anybody measured or forecast, and never told as fact. */
  isMadeUp: z.boolean(),
  sky: z.enum(['clear', 'changing']),
  /** From 0 to 23 o'clock at the site. */
  hours: z.array(weatherHour).length(24),
  /** Coldest air of the 24 hours after this day; null: nobody knows. */
  nightLowC: z.number().min(-45).max(60).nullable().meta({ unit: '°C' }),
});
export type WeatherDay = z.infer<typeof weatherDay>;
