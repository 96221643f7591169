/** A file to be saved. The name is given in ASCII and, after RFC 6266, as it is. @param size of a stream, bytes */
export function attachment(
  content: string | Uint8Array | ReadableStream,
  name: string,
  type: string,
  size: number | null = null,
): Response {
  const plain = name.replace(/[^\w.() -]/g, '_');
  const body = content instanceof Uint8Array ? new Blob([new Uint8Array(content)]) : content;
  return new Response(body, {
    headers: {
      ...(size === null ? {} : { 'content-length': String(size) }),
      'content-type': typeof content === 'string' ? `${type}; charset=utf-8` : type,
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
    },
  });
}
