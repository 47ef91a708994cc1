<script lang="ts">
	import { SignatureDialog } from '$lib/session';
	import { Caution } from '$lib/shared';
	import type { JobStore, Move } from './job.svelte';

	interface Props {
		store: JobStore;
		move: Move;
		onDone: () => void;
	}
	let { store, move, onDone }: Props = $props();

	let asking = $state(false);
	let reason = $state('');
	let ground = $state('');
	let signing = $state(false);

	$effect(() => {
		void move.key;
		asking = false;
		reason = ground = '';
	});
	const passOver = (pin: string) =>
		store.sign({ kind: 'move_skipped', move: move.key, reason, grounds: ground || null }, pin);
</script>

{#if asking}
	<form
		class="space-y-2 border-t border-base-300 pt-2"
		onsubmit={(event) => {
			event.preventDefault();
			signing = true;
		}}
	>
		{#if move.danger}<Caution text={move.danger} />{/if}
		{#if move.grounds.length}
			<select class="entry select w-full" aria-label="On what ground" bind:value={ground}>
				<option value="" disabled>On what ground?</option>
				{#each move.grounds as one (one.key)}<option value={one.key}>{one.words}</option>{/each}
			</select>
		{/if}
		<input
			class="entry input w-full"
			placeholder="Reason for going on; it stands on the certificate"
			aria-label="Reason for going on"
			bind:value={reason}
		/>
		<div class="flex flex-wrap gap-2">
			<button
				class="btn btn-warning"
				disabled={reason.trim().length < 5 || (move.grounds.length > 0 && !ground)}>Sign and go on</button
			>
			<button type="button" class="btn" onclick={() => (asking = false)}>Back</button>
		</div>
	</form>
{:else}
	<button class="btn btn-ghost" onclick={() => (asking = true)}>Go on without this …</button>
{/if}
{#if signing}
	<SignatureDialog
		what="go on without this: {move.text}"
		sign={passOver}
		onDone={() => {
			signing = false;
			onDone();
		}}
	/>
{/if}
