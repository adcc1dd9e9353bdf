<script setup lang="ts">
import { useSettings, type Backdrop } from '../../stores/settings.ts';
import ViewSwitch from '../../ui/ViewSwitch.vue';
import { say } from '../../core/words/say.ts';

const settings = useSettings();
const CHOICES: readonly { value: Backdrop; name: string }[] = [{ value: 'hatch', name: say('hatch') }, { value: 'paper', name: say('paper') }, { value: 'blank', name: say('blank') }, { value: 'loud', name: say('loud') }];
</script>

<template><ViewSwitch v-model="settings.backdrop" :choices="CHOICES" label="Backdrop behind the art" /></template>
