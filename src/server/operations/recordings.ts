import type { recordingFacts } from '@/contract/recordings';
import { rowOf } from '../records/one';
import { hearRecording } from '../records/recording-hear';
import { keepRecording } from '../records/recording-keep';
import type { Handlers } from './handler';

export const recordingHandlers: Handlers<keyof typeof recordingFacts> = {
  addRecording: ({ params, file, request }) => keepRecording(params.key, file, request.signal),
  recordingSound: async ({ actor, params, query }) => {
    const { row } = await rowOf(actor, params.key);
    const started = row.started as Date;
    const name = `${started.toISOString().slice(0, 16).replace(':', '.')} call.wav`;
    const wav = await hearRecording(
      actor,
      { started, id: row.id as string },
      { site: row.site as string | null, label: 'this call', file: query.file === 'yes' },
    );
    const headers = new Headers({ 'content-type': 'audio/wav', 'cache-control': 'private, no-store' });
    if (query.file === 'yes')
      headers.set('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
    return new Response(Buffer.from(wav), { headers });
  },
};
