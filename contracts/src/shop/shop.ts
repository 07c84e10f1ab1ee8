import * as z from 'zod';
import { id, instant, words } from '../quantities.js';

/** An address of this machine that a phone in the same private network can reach. */
export const shopAddress = z.object({ address: z.ipv4(), network: z.string() });
export type ShopAddress = z.infer<typeof shopAddress>;

/** A phone, tablet or second machine that was let in by a code of the bench. Its secret is known to it alone. */
export const admittedDevice = z.object({
  id,
  name: words(60).min(1),
  /** Who works with it: chosen there at first. */
  personId: id.nullable(),
  admittedAt: instant,
  lastSeenAt: instant,
});
export type AdmittedDevice = z.infer<typeof admittedDevice>;

/** The code that lets one device in: good once, and not for long. */
export const admissionCode = z.object({ code: z.string(), url: z.string(), name: words(60), personId: id.nullable(), expiresAt: instant });
export type AdmissionCode = z.infer<typeof admissionCode>;

/** How the bench listens: to this machine alone (`chosen` null), or also to devices in the shop. */
export const shopStatus = z.object({
  addresses: z.array(shopAddress),
  chosen: z.ipv4().nullable(),
  /** Why devices cannot reach it although an address is chosen. */
  trouble: z.string().nullable(),
  /** Where an admitted device finds the bench; null while it does not listen. */
  url: z.string().nullable(),
  /** Where a device fetches the certificate. */
  setUpUrl: z.string().nullable(),
  /** SHA-256 of the certificate that devices install, in pairs of hexadecimal digits. */
  fingerprint: z.string().nullable(),
  code: admissionCode.nullable(),
  devices: z.array(admittedDevice),
});
export type ShopStatus = z.infer<typeof shopStatus>;

export const shopListen = z.object({ address: z.ipv4('An address of this machine, such as 192.168.1.20.').nullable() });
export const newAdmission = z.object({ name: words(60).min(1, 'Say whose device it is.'), personId: id.nullable().default(null) });
export const deviceRemoval = z.object({ deviceId: id });
