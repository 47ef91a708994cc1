/** Every page that is reached by its name: the navigation and the search know the same ones. */
export const PAGES = [
	{ href: '/', name: 'Bench', words: 'jobs open work' },
	{ href: '/jobs/new', name: 'New job', words: 'intake take in' },
	{ href: '/due', name: 'Services due', words: 'calendar interval' },
	{ href: '/units', name: 'All units', words: 'serial customer register label' },
	{ href: '/rings', name: 'Ring finder', words: 'o-ring match measure' },
	{ href: '/rings/chart', name: 'Pocket chart', words: 'ring sizes table print' },
	{ href: '/rings/practice', name: 'Ring practice', words: 'puzzles learn' },
	{ href: '/grooves', name: 'Groove check', words: 'squeeze fill stretch' },
	{ href: '/grooves/new', name: 'New groove', words: 'design dimensions' },
	{ href: '/seals', name: 'Seal finder', words: 'lip wiper housing match' },
	{ href: '/seals/packing', name: 'Packing', words: 'stuffing box rings' },
	{ href: '/seals/press-fit', name: 'Press fit', words: 'metal clad interference' },
	{ href: '/seals/failures', name: 'Why a seal failed', words: 'cause diagnosis' },
	{ href: '/compounds', name: 'Compounds', words: 'nbr fkm fluid lubricant hardness' },
	{ href: '/calculators', name: 'Cylinder calculator', words: 'bore rod force speed' },
	{ href: '/calculators/torque', name: 'Torque calculator', words: 'bolt wrench preload adapter' },
	{ href: '/stand', name: 'Test stand', words: 'gauge live record' },
	{ href: '/stand/map', name: 'Test stand: register map', words: 'modbus channels' },
	{ href: '/workshop', name: 'Build sheets', words: 'import export versions' },
	{ href: '/workshop/tools', name: 'Tools', words: 'torque wrenches gauges calibration' },
	{ href: '/workshop/check', name: 'Check a sheet', words: 'yaml soundness' },
	{ href: '/workshop/stock', name: 'Stock', words: 'shelf drawer kit' },
	{ href: '/workshop/orders', name: 'Order list', words: 'missing parts buy' },
	{ href: '/workshop/people', name: 'People and rights', words: 'pin authority' },
	{ href: '/workshop/rules', name: 'Shop settings', words: 'letterhead practice limits units' },
	{ href: '/workshop/tokens', name: 'Tokens', words: 'script api' },
	{ href: '/workshop/changes', name: 'Changes', words: 'trail audit' },
	{ href: '/check', name: 'Check a certificate', words: 'qr record hash' },
	{ href: '/api/docs', name: 'API', words: 'documentation scripts' }
];

/** The pages that hold every word. */
export function pagesFor(words: string): typeof PAGES {
	const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
	if (!wanted.length) return [];
	return PAGES.filter((page) => {
		const text = `${page.name} ${page.words}`.toLowerCase();
		return wanted.every((word) => text.includes(word));
	});
}
