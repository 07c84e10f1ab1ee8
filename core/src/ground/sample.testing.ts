/** How many cases a long simulation draws: all of them where there is time, a short sample where CI has to answer soon. */
export const sampleOf = (all: number, inCi: number): number => (process.env['CI'] ? inCi : all);
