import { QueryClient } from '@tanstack/vue-query'
import { createRouter, createWebHistory } from 'vue-router'
import { Failure } from './api/client'
import { meOptions } from './api/me'
import FollowUp from './places/follow-up/FollowUp.vue'

declare module 'vue-router' {
  interface RouteMeta {
    title: string
    open?: boolean
    plain?: boolean
  }
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/follow-up' },
    {
      path: '/sign-in',
      component: () => import('./places/account/SignIn.vue'),
      meta: { title: 'Sign in', open: true },
    },
    {
      path: '/sign-up',
      component: () => import('./places/account/SignUp.vue'),
      meta: { title: 'Sign up', open: true },
    },
    {
      path: '/verify/:key?',
      component: () => import('./places/account/VerifyEmail.vue'),
      meta: { title: 'Confirm', open: true },
    },
    {
      path: '/reset/:key?',
      component: () => import('./places/account/ResetPassword.vue'),
      meta: { title: 'New password', open: true },
    },
    {
      path: '/welcome',
      component: () => import('./places/account/FoundBusiness.vue'),
      meta: { title: 'Your business', plain: true },
    },
    { path: '/follow-up/:id(\\d+)?', component: FollowUp, meta: { title: 'Follow-up' } },
    {
      path: '/people',
      component: () => import('./places/people/PeoplePlace.vue'),
      meta: { title: 'People' },
    },
    {
      path: '/people/bring-in/:id(\\d+)?',
      component: () => import('./places/people/BringIn.vue'),
      meta: { title: 'Bring people in' },
    },
    {
      path: '/people/:id(\\d+)',
      component: () => import('./places/people/PersonPage.vue'),
      meta: { title: 'Person' },
    },
    {
      path: '/touchpoints',
      component: () => import('./places/touchpoints/TouchpointList.vue'),
      meta: { title: 'Touchpoints' },
    },
    {
      path: '/touchpoints/rehearse',
      component: () => import('./places/rehearse/RehearsePlace.vue'),
      meta: { title: 'Rehearse a visit' },
    },
    {
      path: '/touchpoints/:id(\\d+)/answers',
      component: () => import('./places/touchpoints/AnswersTable.vue'),
      meta: { title: 'Answers' },
    },
    {
      path: '/touchpoints/:id(\\d+)',
      component: () => import('./places/touchpoints/TouchpointEditor.vue'),
      meta: { title: 'Touchpoint' },
    },
    {
      path: '/not-on-the-list',
      component: () => import('./places/aside/AsidePlace.vue'),
      meta: { title: 'Not on the list' },
    },
    {
      path: '/quarantine',
      component: () => import('./places/quarantine/QuarantinePlace.vue'),
      meta: { title: 'Set aside' },
    },
    {
      path: '/hours',
      component: () => import('./places/hours/HoursPlace.vue'),
      meta: { title: 'Hours & channels' },
      children: [
        { path: '', component: () => import('./places/hours/WeekTab.vue') },
        { path: 'told', component: () => import('./places/hours/ToldTab.vue') },
        { path: 'channels/:id(\\d+|new)?', component: () => import('./places/hours/ChannelsTab.vue') },
      ],
    },
    {
      path: '/script',
      component: () => import('./places/business/ScriptPage.vue'),
      meta: { title: 'The script on your site', open: true },
    },
    {
      path: '/business',
      component: () => import('./places/business/BusinessPlace.vue'),
      meta: { title: 'Business' },
    },
    { path: '/you', component: () => import('./places/you/YouPlace.vue'), meta: { title: 'You' } },
    { path: '/:rest(.*)*', component: () => import('./places/NotHere.vue'), meta: { title: 'Not here' } },
  ],
})

let queries: QueryClient | null = null

/** Where signed-in state is looked up; given once by the application. */
export function guardWith(client: QueryClient): void {
  queries = client
}

/**
 * Whoever is signed in: asked for where that is only kept from the last time, and as it is kept without a
 * network.
 */
async function whoIsIt(client: QueryClient) {
  const known = client.getQueryData(meOptions.queryKey)
  if (known && (!navigator.onLine || !client.getQueryState(meOptions.queryKey)?.isInvalidated)) return known
  try {
    return await client.fetchQuery({ ...meOptions, networkMode: 'always', retry: false })
  } catch (problem) {
    if (known && problem instanceof Failure && problem.status === 0) return known
    throw problem
  }
}

router.beforeEach(async (to, from) => {
  if (to.meta.open || !queries) return true
  // Going along a list waits for nobody: who it is has been asked for in this place.
  if (to.matched[0] === from.matched[0] && queries.getQueryData(meOptions.queryKey)) return true
  try {
    const me = await whoIsIt(queries)
    if (!me.business && to.path !== '/welcome') return '/welcome'
    if (me.business && to.path === '/welcome') return '/follow-up'
    return true
  } catch (error) {
    if (error instanceof Failure && error.status === 401)
      return { path: '/sign-in', query: { next: to.fullPath } }
    return true
  }
})

router.afterEach((to) => {
  document.title = `${to.meta.title} · Intavo`
})
