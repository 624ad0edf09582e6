import { api, unwrap, type Api } from '@/api/client';

/** Mails that the application would have sent. */
export const readMails = async (): Promise<Api['CaughtMail'][]> => unwrap(await api.GET('/mails'));
