import type { soundFacts } from '@/contract/sounds';
import { Refused } from '../access/rights';
import { applyEdits } from '../draft';
import { ask } from '../engine';
import { madeReady } from '../sound/make';
import { speechMissing, spokenText } from '../sound/speak';
import { wavOfPhrase } from '../sound/phrases';
import { inTurn } from '../sound/turn';
import { factsOfSound, keepSound, wavOfSound } from '../sound/store';
import { situationAt } from '../state/situation';
import { momentOf } from './calls';
import type { Handlers } from './handler';

const wavHeaders = (caching: string) => new Headers({ 'content-type': 'audio/wav', 'cache-control': caching });

export const soundHandlers: Handlers<keyof typeof soundFacts> = {
  addSound: async ({ actor, file, request }) =>
    keepSound(await madeReady(file, { field: 'file', signal: request.signal }), actor.account),
  speak: async ({ actor, body, request }) => {
    const spoken = await inTurn(request.signal, () => spokenText(body.text, body.language, body.wordsAMinute));
    const ready = await madeReady(spoken, { field: 'text', signal: request.signal });
    return keepSound({ ...ready, facts: { ...ready.facts, said: body.text } }, actor.account);
  },
  speech: async () => ({ missing: await speechMissing() }),
  soundFacts: ({ params }) => factsOfSound(params.id),
  sound: async ({ params, query }) => {
    const wav = await wavOfSound(params.id, query.rate === '8000' ? 8000 : 16_000);
    // What is heard is what the address says: it never changes.
    const headers = wavHeaders('private, max-age=31536000, immutable');
    if (query.name)
      headers.set('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${query.name}.wav`)}`);
    return new Response(Buffer.from(wav), { headers });
  },
  namesOnKeys: async ({ actor, query, request }) => ({
    people: await ask('namesByKeys', { reader: actor, site: query.site || null }, { signal: request.signal }),
  }),
  keyPaths: async ({ actor, params, query, request }) => {
    const now = Date.now();
    const at = await momentOf({ from: '', dial: '', when: query.at, calling: null }, now);
    const situation = await situationAt(at);
    return ask('keyPaths', { reader: actor, id: params.id, at, situation }, { signal: request.signal });
  },
  replacePrompt: async ({ actor, params, body }) => {
    const { edits, act } = await ask('promptReplaced', { reader: actor, id: params.id, by: body.by });
    return applyEdits(actor, edits, { act });
  },
  phraseSound: async ({ actor, params, query, request }) => {
    const said = await ask('phraseSaid', { reader: actor, ...params, figure: query.figure ?? null });
    const wav = said.sound
      ? await wavOfSound(said.sound, 16_000)
      : await wavOfPhrase(said, query.figure, request.signal);
    return new Response(Buffer.from(wav), { headers: wavHeaders('no-cache') });
  },
  cutSound: async ({ actor, params, body, request }) => {
    const { seconds, facts } = await factsOfSound(params.id);
    if (body.from >= seconds)
      throw new Refused(422, 'beyond-end', `begins after the end: the sound lasts ${seconds} s.`, 'from');
    const wav = await wavOfSound(params.id, 16_000);
    const ready = await madeReady(wav, { part: body, field: 'from', signal: request.signal });
    return keepSound({ ...ready, facts: { ...ready.facts, said: facts.said } }, actor.account);
  },
};
