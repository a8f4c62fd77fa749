/** "1 500 mm" → "1500 mm", "5 ft 3 1/2 in" → "(5 ft + (3 + 1/2) in)". */
export function normaliseQuantityText(text: string): string {
	return (
		text
			.replace(/(\d)[\u00a0\u202f ](?=\d{3}(?!\d))/g, '$1')
			.replace(/(\d+)\s+(\d+)\/(\d+)\s*in\b/g, '($1 + $2/$3) in')
			.replace(/(\d+(?:\.\d+)?)\s*ft\s*(\(?[\d.][^a-z]*)\s*in\b/g, '($1 ft + $2 in)')
			// The parser takes "in" for a conversion.
			.replace(/\bin\b/g, 'inch')
			.replace(/°/g, ' deg')
			.replace(/−/g, '-')
	);
}
