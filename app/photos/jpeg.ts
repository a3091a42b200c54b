/** A picture as an answer: it is what its name says, so that a browser keeps it for ever. */
export const asJpeg = (bytes: Uint8Array): Response =>
  new Response(new Uint8Array(bytes), {
    headers: {
      "Content-Type": "image/jpeg",
      "Cache-Control": "private, max-age=31536000, immutable",
      "X-Content-Type-Options": "nosniff",
    },
  });
