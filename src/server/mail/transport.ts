import { createTransport } from 'nodemailer';
import type { MailSettings } from '@/contract/mail';

/* A mail handed to a server (RFC 5321), with its sound attached where it has one. */

const CONNECT_MS = 10_000;
const SILENT_MS = 20_000;

export interface OutgoingMail {
  id: string;
  to: string;
  subject: string;
  text: string;
  sound: { name: string; wav: Uint8Array } | null;
}

/** Hands a mail over; gives what the server answered, throws when it did not take it. */
export async function handOver(
  server: MailSettings & { password: string | null },
  mail: OutgoingMail,
): Promise<string> {
  const transport = createTransport({
    host: server.host,
    port: server.port,
    secure: server.security === 'tls',
    requireTLS: server.security === 'starttls',
    ignoreTLS: server.security === 'none',
    ...(server.user === '' ? {} : { auth: { user: server.user, pass: server.password ?? '' } }),
    connectionTimeout: CONNECT_MS,
    greetingTimeout: CONNECT_MS,
    socketTimeout: SILENT_MS,
    // What a mail says comes from us: no file and no address is ever read for it.
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  try {
    const sent = await transport.sendMail({
      from: { name: 'Polydrome', address: server.sender },
      to: mail.to,
      subject: mail.subject,
      text: mail.text,
      // The same mail handed over twice is known as one by whoever reads it (RFC 5322 section 3.6.4).
      messageId: `<${mail.id}@${server.sender.split('@')[1]}>`,
      headers: { 'Auto-Submitted': 'auto-generated' },
      attachments: mail.sound
        ? [{ filename: `${mail.sound.name}.wav`, content: Buffer.from(mail.sound.wav), contentType: 'audio/wav' }]
        : [],
    });
    return sent.response;
  } finally {
    transport.close();
  }
}

/** Why a mail was not taken, in the words of the server or of the network. */
export function refusalWords(e: unknown): string {
  const { response, message } = e as { response?: string; message?: string };
  return (response ?? message ?? 'no answer').replace(/\s+/g, ' ').slice(0, 300);
}

/** Whether it is worth another try: what a server refuses for good (5yz, RFC 5321 section 4.2.1) is not. */
export const isForGood = (e: unknown): boolean => {
  const { responseCode } = e as { responseCode?: number };
  return responseCode !== undefined && responseCode >= 500;
};
