type Content = string | Blob | Uint8Array | readonly Uint8Array[];

/** What a file holds, which may come in pieces, as one. */
export const blobOf = (content: Content, type: string): Blob =>
	new Blob((Array.isArray(content) ? content : [content]) as BlobPart[], { type });

/** Give a file to the browser. */
export function saveFile(name: string, content: Content, type: string): void {
	const url = URL.createObjectURL(blobOf(content, type));
	const link = document.createElement('a');
	link.href = url;
	link.download = name;
	link.click();
	setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

export function fileStem(name: string): string {
	return (
		name
			.toLowerCase()
			.replace(/[^a-z0-9]+/g, '-')
			.replace(/^-|-$/g, '') || 'project'
	);
}
