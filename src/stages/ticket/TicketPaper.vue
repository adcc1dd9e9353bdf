<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue';
import { stepWords, type TicketSection } from '../../core/ticket/ticketWords.ts';
import type { TicketView } from '../../engine/jobTicket.ts';

/** The ticket as a page of paper. */
const props = defineProps<{ view: TicketView; sections: readonly TicketSection[]; proof: ImageBitmap | undefined; date: string }>();

const canvas = ref<HTMLCanvasElement>();
function draw(): void {
  const { proof } = props;
  if (canvas.value === undefined || proof === undefined) return;
  canvas.value.width = proof.width;
  canvas.value.height = proof.height;
  canvas.value.getContext('2d')?.drawImage(proof, 0, 0);
}
watch(() => props.proof, draw, { flush: 'post' });
onMounted(draw);
/** The code as one path: a square for each dark module. */
const code = computed(() => {
  const { size, dark } = props.view.qr;
  let path = '';
  for (let k = 0; k < dark.length; k++) if (dark[k] === 1) path += `M${k % size} ${Math.floor(k / size)}h1v1h-1z`;
  return path;
});
</script>

<template>
  <article class="paper" aria-label="Ticket">
    <header>
      <div>
        <h3>{{ view.ticket.name }}</h3>
        <p>Ticket · {{ date }}</p>
      </div>
      <svg :viewBox="`-4 -4 ${view.qr.size + 8} ${view.qr.size + 8}`" role="img" :aria-label="$say`Code of the job${view.ticket.code === undefined ? '' : `, ${view.ticket.code}`}`"><rect x="-4" y="-4" width="100%" height="100%" fill="#fff" /><path :d="code" shape-rendering="crispEdges" /></svg>
    </header>
    <canvas ref="canvas" role="img" :aria-label="$say`${view.ticket.name} on ${view.ticket.blank}`" />
    <section v-for="{ title, rows, colour } in sections" :key="title">
      <h4><i v-if="colour !== undefined" :style="{ background: colour }" aria-hidden="true" />{{ title }}</h4>
      <dl>
        <div v-for="([label, value], k) in rows" :key="k" :class="{ wide: label === '' }"><dt v-if="label !== ''">{{ label }}</dt><dd>{{ value }}</dd></div>
      </dl>
    </section>
    <section v-if="view.ticket.steps.length > 0">
      <h4>Then, in this order</h4>
      <ol><li v-for="(step, k) in view.ticket.steps" :key="k">{{ stepWords(step) }}{{ step.what === 'press' || step.waitMin === 0 ? '' : `: ${step.waitMin} min` }}</li></ol>
    </section>
  </article>
</template>

<style scoped>
.paper {
  max-width: 720px;
  margin: 24px auto;
  padding: 34px 40px;
  background: #fffdf8;
  color: #241b2f;
  font-size: 13px;
  line-height: 1.5;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 20px;
}
h3 {
  margin: 0;
  font-family: var(--serif);
  font-size: 26px;
  line-height: 1.15;
}
header p,
dt {
  margin: 0;
  color: #5d5364;
}
svg {
  width: 104px;
  height: 104px;
  flex: none;
}
canvas {
  float: right;
  max-width: 230px;
  max-height: 300px;
  margin: 14px 0 10px 24px;
}
h4 {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 12px 0 4px;
  padding-top: 8px;
  border-top: 1px solid #d9cfc1;
  font-size: 14px;
}
h4 i {
  width: 22px;
  height: 12px;
  border: 1px solid #5d5364;
}
dl {
  margin: 0;
}
dl div {
  display: flex;
  gap: 8px;
}
dt {
  width: 84px;
  flex: none;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
ol {
  margin: 0;
  padding-left: 20px;
}
</style>
