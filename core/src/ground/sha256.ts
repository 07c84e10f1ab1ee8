import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import { canonicalJson } from './canonical-json.js';

/** SHA-256 over the canonical text of a value, in hexadecimal. @source FIPS 180-4, RFC 8785 */
export const sha256Of = (value: unknown): string => bytesToHex(sha256(utf8ToBytes(canonicalJson(value))));
