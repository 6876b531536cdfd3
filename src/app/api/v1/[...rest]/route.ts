import { NextResponse } from 'next/server';

const nothing = () =>
  NextResponse.json(
    {
      error: {
        code: 'no-such-path',
        path: '',
        sentence: 'There is nothing here; /api/v1/openapi.json lists what there is.',
      },
    },
    { status: 404 },
  );

export { nothing as GET, nothing as POST, nothing as PUT, nothing as DELETE };
