import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router';
import { STAGES } from '../stages/stages.ts';

const stageViews: Readonly<Record<string, () => Promise<unknown>>> = {
  picture: () => import('../stages/picture/PictureView.vue'),
  clean: () => import('../stages/clean/CleanView.vue'),
  separate: () => import('../stages/separate/SeparateView.vue'),
  assemble: () => import('../stages/assemble/AssembleView.vue'),
  layout: () => import('../stages/layout/LayoutView.vue'),
  handoff: () => import('../stages/handoff/HandOffView.vue'),
};

export const routes: RouteRecordRaw[] = [
  { path: '/', name: 'shelf', component: () => import('../stages/shelf/ShelfView.vue') },
  { path: '/together', name: 'together', component: () => import('../stages/together/TogetherView.vue') },
  { path: '/keeping', name: 'keeping', component: () => import('../stages/keeping/KeepingView.vue') },
  { path: '/workshop', name: 'workshop', component: () => import('../stages/workshop/WorkshopView.vue') },
  {
    path: '/job/:id',
    component: () => import('../stages/JobView.vue'),
    children: [
      ...STAGES.map(({ stage }): RouteRecordRaw => ({ path: stage, name: stage, component: stageViews[stage] as () => Promise<never> })),
      { path: 'machine', name: 'machine', component: () => import('../stages/machine/MachineView.vue') },
      { path: 'versions', name: 'versions', component: () => import('../stages/versions/VersionsView.vue') },
      { path: 'ticket', name: 'ticket', component: () => import('../stages/ticket/TicketView.vue') },
    ],
  },
  { path: '/:anything(.*)*', redirect: '/' },
];

export const makeRouter = () => createRouter({ history: createWebHistory(), routes });
