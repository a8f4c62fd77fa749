/** Give a file to the browser. */
export function saveFile(name: string, content: string | Uint8Array | Blob, type: string): void {
	const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
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
