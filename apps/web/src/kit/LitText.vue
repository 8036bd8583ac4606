<script setup lang="ts">
/** Text with words lit, and with the inline tags CSL knows (i, b, sup, sub) shown as what they mean. */
import { computed } from 'vue';
import type { Lit } from '@pandecta/core/words';

const props = defineProps<{ text: string; lit?: Lit[] }>();

interface Part {
  text: string;
  lit: boolean;
  classes: string;
}

const CLASSES: Record<string, string> = {
  i: 'italic',
  b: 'font-bold',
  sup: 'align-super text-[0.75em]',
  sub: 'align-sub text-[0.75em]',
};

const parts = computed<Part[]>(() => {
  const out: Part[] = [];
  const open: string[] = [];
  let at = 0;
  const push = (to: number): void => {
    while (at < to) {
      const inside = props.lit?.find((l) => l.start <= at && at < l.end);
      const next = inside
        ? Math.min(inside.end, to)
        : Math.min(to, ...(props.lit ?? []).filter((l) => l.start > at).map((l) => l.start));
      out.push({
        text: props.text.slice(at, next),
        lit: Boolean(inside),
        classes: open.map((t) => CLASSES[t]).join(' '),
      });
      at = next;
    }
  };
  for (const m of props.text.matchAll(/<(\/?)(i|b|sup|sub)>/g)) {
    push(m.index);
    if (m[1]) open.splice(open.lastIndexOf(m[2]!), 1);
    else open.push(m[2]!);
    at = m.index + m[0].length;
  }
  push(props.text.length);
  return out;
});
</script>

<template>
  <span
    ><template v-for="(p, i) in parts" :key="i"
      ><mark v-if="p.lit" :class="p.classes" class="rounded-[2px] bg-lit text-ink">{{ p.text }}</mark
      ><span v-else-if="p.classes" :class="p.classes">{{ p.text }}</span
      ><template v-else>{{ p.text }}</template></template
    ></span
  >
</template>
