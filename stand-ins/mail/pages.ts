import type { AddressObject, ParsedMail } from 'mailparser';

/* The pages of the mail stand-in: what came, and one mail with its sounds. */

const escaped = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

const addresses = (to: AddressObject | AddressObject[] | undefined) =>
  [to ?? []]
    .flat()
    .map((t) => t.text)
    .join(', ');

const STYLE = `body{font:14px/20px system-ui,sans-serif;margin:24px auto;max-width:860px;padding:0 16px;color:#1c2333;background:#fbfaf7}
h1{font-size:20px;font-weight:600}a{color:#1d5c8a}table{border-collapse:collapse;width:100%}
td,th{text-align:left;padding:6px 8px;border-bottom:1px solid #d9d4c7;vertical-align:top}pre{white-space:pre-wrap;font:inherit}
@media(prefers-color-scheme:dark){body{background:#171a21;color:#e8e6df}a{color:#8cc4ee}td,th{border-color:#3a3f4b}}`;

const document = (title: string, body: string) =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(title)}</title><style>${STYLE}</style><main>${body}</main></html>`;

/** Everything that came, the newest first. */
export function listPage(list: readonly { name: string; mail: ParsedMail }[]): string {
  const rows = list.map(
    ({ name, mail }) =>
      `<tr><td>${escaped(mail.date?.toISOString().slice(0, 16).replace('T', ' ') ?? '')}</td><td>${escaped(addresses(mail.to))}</td><td><a href="/${name}">${escaped(mail.subject ?? 'no subject')}</a></td><td>${mail.attachments.length > 0 ? 'with sound' : ''}</td></tr>`,
  );
  const table = `<table><thead><tr><th>When (UTC)</th><th>To</th><th>Subject</th><th></th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
  return document(
    'Mail that was sent',
    `<h1>Mail that was sent</h1><p>Taken by the mail stand-in; it sends nothing on.</p>${list.length > 0 ? table : '<p>None came yet.</p>'}`,
  );
}

/** One mail, with what is attached. */
export function mailPage(name: string, mail: ParsedMail): string {
  const sounds = mail.attachments.map((a, i) =>
    a.contentType.startsWith('audio/')
      ? `<p>${escaped(a.filename ?? '')}<br><audio controls src="/${name}/${i}"></audio></p>`
      : `<p><a href="/${name}/${i}">${escaped(a.filename ?? `part ${i}`)}</a></p>`,
  );
  // Links are shown as links only where they lead to pages.
  const text = escaped(mail.text ?? '').replace(
    /https?:&#47;&#47;[^\s<]+|https?:\/\/[^\s<]+/g,
    (u) => `<a href="${u}">${u}</a>`,
  );
  return document(
    mail.subject ?? 'Mail',
    `<p><a href="/">All mail</a></p><h1>${escaped(mail.subject ?? 'no subject')}</h1><table><tr><th>From</th><td>${escaped(mail.from?.text ?? '')}</td></tr><tr><th>To</th><td>${escaped(addresses(mail.to))}</td></tr></table><pre>${text}</pre>${sounds.join('')}`,
  );
}
