<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { faultAt, ProblemNote } from '$lib/shared';

	interface Props {
		person: Schemas['PersonOut'];
		what: 'pin' | 'badge';
		/** For one's own the present PIN is asked for: the device may lie open. */
		own: boolean;
		onDone: () => Promise<void>;
	}
	let { person, what, own, onDone }: Props = $props();

	const id = $props.id();
	let secret = $state('');
	let present = $state('');
	let problem = $state.raw<Problem | null>(null);
	const fault = $derived(faultAt(problem, what));

	async function set(value: string | null) {
		const options = { params: { path: { key: person.key } } };
		const present_pin = own ? present : null;
		const answer =
			what === 'pin'
				? await ask(api.PUT('/api/people/{key}/pin', { ...options, body: { pin: value ?? '', present_pin } }))
				: await ask(api.PUT('/api/people/{key}/badge', { ...options, body: { badge: value, present_pin } }));
		problem = answer.problem;
		if (!problem) await onDone();
	}
</script>

<form
	class="mt-2 grid gap-2 border-t border-base-300 pt-2 sm:grid-cols-2"
	onsubmit={(event) => {
		event.preventDefault();
		void set(secret);
	}}
	data-form
>
	{#if own}
		<div>
			<label class="font-semibold" for="{id}-present">Your present PIN</label>
			<input
				id="{id}-present"
				class="entry input w-full"
				type="password"
				autocomplete="off"
				bind:value={present}
			/>
		</div>
	{/if}
	<div>
		<label class="font-semibold" for="{id}-new"
			>{what === 'pin' ? 'New PIN or password' : 'Hold the badge to the reader'}</label
		>
		<input
			id="{id}-new"
			class={['entry input w-full', fault && 'input-error']}
			type="password"
			autocomplete="new-password"
			bind:value={secret}
		/>
	</div>
	<p class="text-sm text-error sm:col-span-2">{fault ?? ''}</p>
	{#if problem && !fault}<div class="sm:col-span-2"><ProblemNote {problem} /></div>{/if}
	<div class="flex gap-2 sm:col-span-2">
		<button class="btn btn-primary" disabled={!secret}>Set it</button>
		{#if what === 'badge' && person.has_badge}
			<button type="button" class="btn" onclick={() => void set(null)}>Remove badge</button>
		{/if}
	</div>
</form>
