// Words on how far something is: in one line where somebody looks on, a line each where they are kept.
export function progress() {
  const isWatched = process.stderr.isTTY === true;
  let last = '';
  return {
    say(words) {
      if (words === last) return;
      last = words;
      process.stderr.write(isWatched ? `\r\x1b[K${words}` : `${words}\n`);
    },
    end() {
      if (isWatched && last) process.stderr.write('\r\x1b[K');
    },
  };
}
