import { servePrograms, type ToSide } from '$core/part/threads/side-threads';

const hear = servePrograms((message, memory) => postMessage(message, { transfer: memory }));
addEventListener('message', ({ data }: MessageEvent<ToSide>) => hear(data));
