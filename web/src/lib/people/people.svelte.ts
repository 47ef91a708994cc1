import { api, ask, type Schemas } from '$lib/api';

type Person = Schemas['PersonOut'];
const KEY = 'kettle-person';

/** Who is at the bench now; kept on this device. */
class People {
	all = $state.raw<Person[]>([]);
	key = $state(localStorage.getItem(KEY) ?? '');
	loaded = $state(false);
	current = $derived(this.all.find((person) => person.key === this.key) ?? null);

	async load() {
		const { data } = await ask(api.GET('/api/people'));
		if (data) {
			this.all = data;
			this.loaded = true;
		}
	}

	choose(key: string) {
		this.key = key;
		localStorage.setItem(KEY, key);
	}
}

export const people = new People();
