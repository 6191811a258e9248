import { SpanStatusCode, trace, type Attributes } from '@opentelemetry/api';

const tracer = trace.getTracer('good-word');

/**
 * Does some work as a span of its own, for whoever traces this process (OpenTelemetry). Off by default: while
 * no SDK is loaded beside the program, the API does nothing. Attributes hold ids and counts, never anything
 * of a person.
 */
export function traced<T>(name: string, attributes: Attributes, work: () => Promise<T>): Promise<T> {
  return tracer.startActiveSpan(name, { attributes }, async (span) => {
    try {
      return await work();
    } catch (error) {
      // The kind of fault alone: the words of one can hold an address.
      span.setStatus({
        code: SpanStatusCode.ERROR,
        message: error instanceof Error ? error.name : 'unknown',
      });
      throw error;
    } finally {
      span.end();
    }
  });
}
