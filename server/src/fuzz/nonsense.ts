import * as z from 'zod';
import type { Random } from '@yellow-pane/core';

/** A JSON Schema as far as it is walked here. */
interface Schema {
  readonly type?: string | readonly string[];
  readonly properties?: Record<string, Schema>;
  readonly required?: readonly string[];
  readonly items?: Schema;
  readonly prefixItems?: readonly Schema[];
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly allOf?: readonly Schema[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly minItems?: number;
  readonly format?: string;
  readonly $ref?: string;
  readonly $defs?: Record<string, Schema>;
  readonly additionalProperties?: Schema | boolean;
}

const texts = ['\u0000', 'a\u0000', '\ud800', 'x\udfffy', '\u202e', '=1+1', '', 'x'.repeat(200), 'M0 0 L1e17 0 L0 1e17 Z', 'QQQ', 'Nowhere/Land', '../x', '‰'];
const numbers = [0, -1, 1e308, -1e308, 5e-324, 1e9, 99_999.999, 0.001, 2 ** 31];

/** What people, broken programs and attackers type where something else is asked for. */
const strange: readonly unknown[] = [
  null, '', ' ', 0, -1, -0, 1e308, -1e308, 5e-324, 2 ** 53, 0.1, true, [], {}, [[[]]], '0', 'NaN', 'Infinity', '\u0000', 'a\u0000b', '\ud800', 'x\udfff', '\u202e', '‮', '=1+1', '@x', '../../etc',
  '<script>x</script>', '"; drop table job; --', '💡', 'é'.repeat(300), 'x'.repeat(5000), 'M0 0 C 1e17 1e17 -1e17 1e17 0 0 Z', '2026-13-45', '9e15', "3' 13\"", '1,200', '__proto__', 'constructor',
]; // prettier-ignore

const jsonSchemas = new Map<z.ZodType, Schema>();
const schemaOf = (type: z.ZodType): Schema => {
  const known = jsonSchemas.get(type);
  if (known) return known;
  const made = z.toJSONSchema(type, { io: 'input', unrepresentable: 'any' }) as Schema;
  jsonSchemas.set(type, made);
  return made;
};

/** Makes values that nearly fit a schema, and values that do not. */
export class Nonsense {
  constructor(
    private readonly random: Random,
    /** Ids that are there, so that more than the first check is reached. */
    private readonly ids: readonly string[],
  ) {}

  one<T>(list: readonly T[]): T {
    return list[Math.floor(this.random() * list.length)]!;
  }
  chance(frac: number): boolean {
    return this.random() < frac;
  }
  strange(): unknown {
    return this.one(strange);
  }

  /** The same with one to three of its values made strange. */
  spoiled(value: unknown): unknown {
    const copy = structuredClone(value);
    for (let n = 1 + Math.floor(3 * this.random()); n > 0; n--) {
      const leaves: { at: Record<string, unknown>; key: string }[] = [];
      const walk = (v: unknown): void => {
        if (typeof v !== 'object' || v === null) return;
        for (const key of Object.keys(v)) {
          leaves.push({ at: v as Record<string, unknown>, key });
          walk((v as Record<string, unknown>)[key]);
        }
      };
      walk(copy);
      if (leaves.length === 0) return this.strange();
      const { at, key } = this.one(leaves);
      const old = at[key];
      // mostly something of the same kind: it gets past the first check
      at[key] =
        typeof old === 'string' && this.chance(0.6) ? this.one(texts) : typeof old === 'number' && this.chance(0.6) ? this.one(numbers) : this.strange();
    }
    return copy;
  }

  /** @param wrong how often a value is replaced by a strange one */
  of(type: z.ZodType, wrong: number): unknown {
    const root = schemaOf(type);
    return this.value(root, root, wrong, 0);
  }

  private value(s: Schema, root: Schema, wrong: number, depth: number): unknown {
    if (this.chance(wrong)) return this.strange();
    if (depth > 12) return null;
    if (s.$ref) return this.value((s.$ref === '#' ? root : root.$defs?.[s.$ref.split('/').at(-1)!]) ?? {}, root, wrong, depth + 1);
    if (s.const !== undefined) return s.const;
    if (s.enum) return this.one(s.enum);
    const choice = s.anyOf ?? s.oneOf;
    if (choice) return this.value(this.one(choice), root, wrong, depth + 1);
    if (s.allOf) return Object.assign({}, ...s.allOf.map((p) => this.value(p, root, wrong, depth + 1)));
    const kind = Array.isArray(s.type) ? this.one(s.type) : s.type;
    if (kind === 'object' || s.properties) return this.object(s, root, wrong, depth);
    if (kind === 'array') {
      if (s.prefixItems) return s.prefixItems.map((p) => this.value(p, root, wrong, depth + 1));
      const count = (s.minItems ?? 0) + Math.floor(this.random() * (depth > 4 ? 2 : 4));
      return Array.from({ length: count }, () => this.value(s.items ?? {}, root, wrong, depth + 1));
    }
    if (kind === 'number' || kind === 'integer') return this.number(s, kind === 'integer');
    if (kind === 'boolean') return this.chance(0.5);
    if (kind === 'null') return null;
    if (kind === 'string') return this.text(s);
    return this.chance(0.5) ? this.strange() : {};
  }

  private object(s: Schema, root: Schema, wrong: number, depth: number): Record<string, unknown> {
    const out: Record<string, unknown> = {};
    for (const [name, p] of Object.entries(s.properties ?? {})) {
      const isNeeded = s.required?.includes(name) ?? false;
      if (isNeeded ? this.chance(wrong / 2) : this.chance(0.4)) continue;
      out[name] = this.value(p, root, wrong, depth + 1);
    }
    if (typeof s.additionalProperties === 'object' && this.chance(0.5))
      out[String(this.strange()).slice(0, 30)] = this.value(s.additionalProperties, root, wrong, depth + 1);
    return out;
  }

  private number(s: Schema, isWhole: boolean): number {
    const [low, high] = [s.minimum ?? -1000, s.maximum ?? 100_000];
    const v = this.chance(0.2) ? this.one([low, high, 0, 1]) : low + this.random() * (Math.min(high, low + 1e6) - low);
    return isWhole ? Math.round(v) : v;
  }
  private text(s: Schema): string {
    if (s.format === 'uuid') return this.one(this.ids);
    if (s.format === 'date') return this.one(['2026-12-03', '1999-01-01', '2026-02-30']);
    if (s.format === 'date-time') return this.one(['2026-12-03T09:00:00Z', '0001-01-01T00:00:00Z']);
    return this.one(['W1', 'Tern Shade 35', '902.5', '35 9/16', 'EUR', 'mm', 'x', '902', String(this.strange())]);
  }
}
