import type { Failure } from '@grivo/core';
import type { SaidRefusal } from './modelRefusal.ts';
import { otherLengthName } from './modelRefusal.ts';

/** How a service is told the shape of its reply: by a strict schema, that it be JSON, or in words alone. */
const FORMS = ['schema', 'object', 'words'] as const;
type Form = (typeof FORMS)[number];

/** Parts of a request that a service may not know, and that it can be asked without. */
const OPTIONAL = ['seed', 'stream_options', 'stream'] as const;

interface Known {
  form: Form;
  otherLimit: boolean;
  without: Set<string>;
}

interface WritingBody {
  messages: readonly { role: string; content: string }[];
  max_tokens: number;
  response_format: { json_schema: { schema: object } };
}

/** What is known of services after they refused a request for its form; forgotten with the process. */
export class WriterForms {
  private readonly known = new Map<string, Known>();

  private of(service: string): Known {
    let known = this.known.get(service);
    if (!known) {
      known = { form: 'schema', otherLimit: false, without: new Set() };
      this.known.set(service, known);
    }
    return known;
  }

  /** How the service is told the shape. */
  form(service: string): Form {
    return this.of(service).form;
  }

  /** A request as the service takes it. */
  shaped(service: string, body: WritingBody): Record<string, unknown> {
    const { form, otherLimit, without } = this.of(service);
    const { max_tokens, response_format, messages, ...rest } = body;
    const told =
      form === 'schema'
        ? messages
        : [{ role: 'system', content: shapeInWords(response_format.json_schema.schema) }, ...messages];
    const format =
      form === 'schema' ? { response_format } : form === 'object' ? { response_format: { type: 'json_object' } } : {};
    const whole: Record<string, unknown> = {
      ...rest,
      messages: told,
      [otherLimit ? 'max_completion_tokens' : 'max_tokens']: max_tokens,
      ...format,
      // Piece by piece, so that a long text is not taken for silence; who cannot do that answers at once.
      stream: true,
      stream_options: { include_usage: true },
    };
    for (const name of without) delete whole[name];
    if (without.has('stream')) delete whole['stream_options'];
    return whole;
  }

  /**
   * Learns from a refusal what the service does not know.
   * @returns whether it may be asked again, in another form
   */
  learn(service: string, failure: Failure, said: SaidRefusal | undefined): boolean {
    const known = this.of(service);
    if (said && otherLengthName(said) && !known.otherLimit) {
      known.otherLimit = true;
      return true;
    }
    if (failure.code !== 'service-refuses') return false;
    const next = FORMS[FORMS.indexOf(known.form) + 1];
    if (failure.because === 'the shape' && next) {
      known.form = next;
      return true;
    }
    const all = `${said?.marks ?? ''} ${said?.message ?? ''}`;
    if (!/unsupported|not supported|unknown|unrecogni[sz]ed|unexpected|not permitted|extra/i.test(all)) return false;
    const strange = OPTIONAL.find((name) => !known.without.has(name) && new RegExp(`\\b${name}\\b`).test(all));
    if (strange) known.without.add(strange);
    return strange !== undefined;
  }
}

function shapeInWords(schema: object): string {
  return `Reply with one JSON object that fits this JSON Schema, and with nothing before or after it:\n${JSON.stringify(schema)}`;
}
