<script lang="ts">
	import ArrowLeft from '@lucide/svelte/icons/arrow-left';
	import IdCard from '@lucide/svelte/icons/id-card';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import FirstLead from './FirstLead.svelte';
	import PinPad from './PinPad.svelte';
	import { session } from './session.svelte';

	let names = $state.raw<Schemas['NameOut'][]>([]);
	let welcome = $state.raw<Schemas['WelcomeOut'] | null>(null);
	let chosen = $state<Schemas['NameOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let badge = $state('');
	let busy = $state(false);
	let reader = $state<HTMLInputElement>();

	$effect(() => {
		void load();
	});
	$effect(() => {
		// A reader types what it reads and Enter: it must find the field ready.
		if (!chosen) reader?.focus();
	});

	async function load() {
		const [people, start] = await Promise.all([ask(api.GET('/api/people')), ask(api.GET('/api/welcome'))]);
		names = people.data ?? names;
		welcome = start.data ?? welcome;
		problem = people.problem ?? start.problem;
	}

	async function enter(body: Schemas['SignInBody']) {
		busy = true;
		problem = await session.signIn(body);
		busy = false;
	}

	async function badgeRead(event: SubmitEvent) {
		event.preventDefault();
		const text = badge;
		badge = '';
		if (text.trim()) await enter({ badge: text });
	}

	function choose(person: Schemas['NameOut'] | null) {
		chosen = person;
		problem = null;
	}
</script>

{#if welcome?.first_start}
	<FirstLead {names} />
{:else if chosen}
	{@const person = chosen}
	<div class="flex flex-col items-center">
		<h1 class="mb-2 w-full max-w-80 text-3xl font-extrabold">{person.name}</h1>
		<PinPad
			label="PIN or password"
			enter="Enter"
			{busy}
			fault={problem?.detail ?? null}
			onEnter={(pin) => void enter({ person: person.key, pin })}
		/>
		<button class="btn mt-2 btn-ghost" onclick={() => choose(null)}
			><ArrowLeft size={20} aria-hidden="true" />Somebody else</button
		>
	</div>
{:else}
	<h1 class="mb-2 text-3xl font-extrabold">Who is at the bench?</h1>
	<ProblemNote {problem} />
	<ul class="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
		{#each names as person (person.key)}
			<li>
				<button class="btn h-16 w-full text-xl" onclick={() => choose(person)}>{person.name}</button>
			</li>
		{/each}
	</ul>
	<form class="mt-3 flex flex-wrap items-center gap-2" onsubmit={badgeRead}>
		<IdCard size={24} aria-hidden="true" />
		<label for="badge">or hold your badge to the reader</label>
		<input
			id="badge"
			bind:this={reader}
			bind:value={badge}
			class="entry input w-40"
			type="password"
			inputmode="none"
			autocomplete="off"
		/>
	</form>
	{#if welcome?.shipped_pins.length}
		<section class="panel mt-4" aria-labelledby="demo">
			<h2 id="demo" class="text-xl font-bold">This is the demo workshop</h2>
			<p>Its people and their PINs are made up; a PIN that was changed is no longer shown.</p>
			<ul class="mt-1 flex flex-wrap gap-x-6">
				{#each welcome.shipped_pins as shipped_pin (shipped_pin.person)}
					<li>{shipped_pin.name}: <strong class="tracking-wider">{shipped_pin.pin}</strong></li>
				{/each}
			</ul>
		</section>
	{/if}
{/if}
