import { SpanStatusCode, trace } from '@opentelemetry/api';
import {
  BasicTracerProvider,
  InMemorySpanExporter,
  SimpleSpanProcessor,
} from '@opentelemetry/sdk-trace-base';
import { traced } from './tracing';

test('does nothing but the work where nobody traces', async () => {
  expect(await traced('work', { batch: 1 }, async () => trace.getActiveSpan()?.isRecording() ?? false)).toBe(
    false,
  );
});

test('tells an SDK what was done, for how long, and that it failed without the words of the fault', async () => {
  const exporter = new InMemorySpanExporter();
  trace.setGlobalTracerProvider(
    new BasicTracerProvider({ spanProcessors: [new SimpleSpanProcessor(exporter)] }),
  );
  await traced('job batch-read', { ref: 7 }, async () => 'done');
  const failing = traced('job batch-check', {}, () => Promise.reject(new TypeError('no such@example.org')));
  await expect(failing).rejects.toThrow('no such@example.org');
  const [done, failed] = exporter.getFinishedSpans();
  expect(done).toMatchObject({ name: 'job batch-read', attributes: { ref: 7 }, ended: true });
  expect(done!.status.code).toBe(SpanStatusCode.UNSET);
  expect(failed!.status).toEqual({ code: SpanStatusCode.ERROR, message: 'TypeError' });
  expect(JSON.stringify([failed!.status, failed!.events])).not.toContain('example.org');
});
