import { config } from 'zod/v4/core';

// The page's policy forbids programs made of text. Asked whether they may be, the browser tells of a breach, and to say
// where it happened it reads the whole program once more. Whoever imports this first never asks.
config({ jitless: true });
