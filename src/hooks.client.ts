import { warmUp } from '$lib/state/thread';

// The thread that computes a project starts beside the page, before its programs have come.
if (location.pathname.startsWith('/project/')) warmUp(false);
