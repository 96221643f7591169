/** A file to be saved. The name is given in ASCII and, after RFC 6266, as it is. */
export function attachment(content: string | Uint8Array, name: string, type: string): Response {
  const plain = name.replace(/[^\w.() -]/g, '_');
  return new Response(typeof content === 'string' ? content : new Blob([new Uint8Array(content)]), {
    headers: {
      'content-type': typeof content === 'string' ? `${type}; charset=utf-8` : type,
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
    },
  });
}
