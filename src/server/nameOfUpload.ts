import { Problem } from './problem';

const longestName = 255;

/** What a file that is sent is called. @throws Problem where that is no plain name */
export function nameOfUpload(request: Request): string {
  const name = new URL(request.url).searchParams.get('name') ?? '';
  if (name === '' || name.length > longestName || /[/\\\0]/.test(name))
    throw new Problem(400, `The upload needs a plain file name of at most ${longestName} characters.`);
  return name;
}
