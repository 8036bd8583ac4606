<script setup lang="ts">
/** What one presses; with `to` it leads somewhere. Without words in it, it says its name. */
import { computed } from 'vue';
import { RouterLink } from 'vue-router';

const {
  look = 'plain',
  to,
  href,
} = defineProps<{
  /** plain and main have a border; quiet and word stand in text; warn takes something away; icon is a picture; bare is laid out by who uses it. */
  look?: 'plain' | 'main' | 'quiet' | 'word' | 'warn' | 'icon' | 'bare';
  /** What it is called where there are no words in it. */
  name?: string;
  to?: string;
  /** An address outside the page, opened beside it. */
  href?: string | undefined;
}>();
const BOX =
  'inline-flex items-center justify-center gap-1.5 whitespace-nowrap rounded-[5px] border px-2.5 py-1 text-body font-medium disabled:border-line disabled:bg-panel disabled:text-muted';
const LOOKS = {
  plain: `${BOX} border-line bg-card text-ink enabled:hover:border-edge`,
  main: `${BOX} border-verdigris bg-verdigris text-onverdigris hover:border-ink`,
  quiet: 'text-fine text-muted hover:text-ink',
  word: 'text-verdigris underline underline-offset-2',
  warn: 'text-madder underline underline-offset-2',
  icon: 'grid min-h-6 min-w-6 shrink-0 place-items-center text-muted enabled:hover:text-ink disabled:opacity-50',
  bare: '',
};
/** An address given as nothing would take a link's own away. */
const leads = computed(() =>
  href !== undefined
    ? { href, target: '_blank', rel: 'noopener noreferrer' }
    : to !== undefined
      ? { to }
      : { type: 'button' },
);
</script>

<template>
  <component
    :is="href !== undefined ? 'a' : to === undefined ? 'button' : RouterLink"
    v-bind="leads"
    :class="LOOKS[look]"
    :aria-label="name"
    :title="name"
  >
    <slot />
  </component>
</template>
