import { useQuery } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export type QuestionAnswer = Schemas['QuestionOut']

export function useQuestions() {
  return useQuery({ queryKey: ['questions'], queryFn: () => take(client.GET('/api/questions')) })
}

export async function keepQuestion(id: number | null, body: Schemas['QuestionIn']): Promise<QuestionAnswer> {
  return id === null
    ? take(client.POST('/api/questions', { body }))
    : take(client.PUT('/api/questions/{question_id}', { params: { path: { question_id: id } }, body }))
}

export async function dropQuestion(question_id: number): Promise<void> {
  await take(client.DELETE('/api/questions/{question_id}', { params: { path: { question_id } } }))
}

export async function orderQuestions(question_ids: number[]): Promise<void> {
  await take(client.PUT('/api/questions/order', { body: { question_ids } }))
}
