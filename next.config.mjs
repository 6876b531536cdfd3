/** @type {import('next').NextConfig} */
const config = {
  poweredByHeader: false,
  serverExternalPackages: ['mysql2', '@node-rs/argon2', 'pino', 'pdfkit', 'dejavu-fonts-ttf'],
  // `npm run check` reads types; a build need not do it twice.
  typescript: { ignoreBuildErrors: true },
  devIndicators: false,
  async headers() {
    const policy =
      "default-src 'self'; script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; connect-src 'self'; media-src 'self' blob:; frame-ancestors 'none'; base-uri 'self'; form-action 'self'";
    return [
      {
        source: '/:path*',
        headers: [
          ...(process.env.NODE_ENV === 'production' ? [{ key: 'Content-Security-Policy', value: policy }] : []),
          { key: 'X-Content-Type-Options', value: 'nosniff' },
          { key: 'Referrer-Policy', value: 'same-origin' },
        ],
      },
    ];
  },
};

export default config;
