/** A file to be saved. The name is given in ASCII and, after RFC 6266, as it is. */
export function attachment(content: string, name: string, type: string): Response {
  const plain = name.replace(/[^\w.() -]/g, '_');
  return new Response(content, {
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
    },
  });
}
