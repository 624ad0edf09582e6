import { toValue, type MaybeRefOrGetter } from 'vue';
import { api, unwrap, type Api } from '@/api/client';
import { useRead } from '@/offline/useRead';

/** What whoever is not signed in may know; brings the cookie that signing in needs. */
export const readWelcome = async (): Promise<Api['Welcome']> => unwrap(await api.GET('/welcome'));

export const readSession = async (): Promise<Api['SessionState']> => unwrap(await api.GET('/session'));

export const openSession = async (body: Api['SignInRequest']): Promise<Api['SessionState']> =>
  unwrap(await api.POST('/session', { body }));

export async function closeSession(): Promise<void> {
  await api.DELETE('/session');
}

/** What an invitation is for. */
export const readInvitation = async (token: string): Promise<Api['InvitationPage']> =>
  unwrap(await api.POST('/invitation-lookups', { body: { token } }));

/** Joins; without an account with a name and a password. */
export const acceptInvitation = async (body: Api['AcceptRequest']): Promise<Api['SessionState']> =>
  unwrap(await api.POST('/invitation-acceptances', { body }));

/** What an address that works once is for. */
export const readLink = async (token: string): Promise<Api['OneTimeLinkPage']> =>
  unwrap(await api.POST('/link-lookups', { body: { token } }));

/** Sets a password by such an address, and signs in. */
export const spendLink = async (body: Api['LinkUseRequest']): Promise<Api['SessionState']> =>
  unwrap(await api.POST('/link-uses', { body }));

/** Has an address sent at which to set another password, if somebody has this mail address. */
export async function askForPassword(email: string): Promise<void> {
  await api.POST('/password-resets', { body: { email } });
}

/** The people of a project, and who is invited. */
export function usePeople(project: MaybeRefOrGetter<string>) {
  return useRead(
    'cycle',
    () => ['people', toValue(project)],
    async () =>
      unwrap(
        await api.GET('/projects/{project}/people', { params: { path: { project: toValue(project) } } }),
      ),
  );
}

/** Who may what in a project. */
export function useAccess(project: MaybeRefOrGetter<string>) {
  return useRead(
    'cycle',
    () => ['access', toValue(project)],
    async () =>
      unwrap(
        await api.GET('/projects/{project}/access', { params: { path: { project: toValue(project) } } }),
      ),
  );
}

/** Changes what a project says of who may what. */
export const changeAccess = async (project: string, body: Api['AccessRequest']): Promise<Api['AccessPage']> =>
  unwrap(await api.PATCH('/projects/{project}/access', { params: { path: { project } }, body }));

/** Invites people, a line each; says what became of each line. */
export const invitePeople = async (
  project: string,
  body: Api['InviteRequest'],
): Promise<Api['InvitedLine'][]> =>
  unwrap(await api.POST('/projects/{project}/invitations', { params: { path: { project } }, body }));

/** Sends an invitation again, for another seven days. */
export async function sendInvitation(invitation: string): Promise<void> {
  await api.POST('/invitations/{invitation}/sendings', { params: { path: { invitation } } });
}

export async function withdrawInvitation(invitation: string): Promise<void> {
  await api.DELETE('/invitations/{invitation}', { params: { path: { invitation } } });
}

/** The address at which an invitation is accepted. */
export const invitationAddress = async (invitation: string): Promise<string> =>
  unwrap(await api.POST('/invitations/{invitation}/addresses', { params: { path: { invitation } } })).address;

export const changeRole = async (
  project: string,
  person: string,
  role: Api['ProjectPerson']['role'],
): Promise<Api['PeoplePage']> =>
  unwrap(
    await api.PUT('/projects/{project}/people/{person}/role', {
      params: { path: { project, person } },
      body: { role },
    }),
  );

/** Takes somebody out of a project, or leaves it; what is open of theirs goes to `to`, or to nobody. */
export async function takeOut(project: string, person: string, to: string | null): Promise<void> {
  await api.POST('/projects/{project}/people/{person}/departures', {
    params: { path: { project, person } },
    body: { to },
  });
}

/** All projects and people, for owners of the installation. */
export function useInstallation() {
  return useRead(
    'cycle',
    () => ['installation'],
    async () => unwrap(await api.GET('/installation')),
  );
}

export const makeProject = async (body: Api['ProjectRequest']): Promise<Api['ProjectSummary']> =>
  unwrap(await api.POST('/projects', { body }));

export const archiveProject = async (id: string): Promise<Api['InstallationPage']> =>
  unwrap(await api.POST('/installation/projects/{id}/archivings', { params: { path: { id } } }));

export const restoreProject = async (id: string): Promise<Api['InstallationPage']> =>
  unwrap(await api.POST('/installation/projects/{id}/restorations', { params: { path: { id } } }));

export const setOwner = async (id: string, isOwner: boolean): Promise<Api['InstallationPage']> =>
  unwrap(
    await api.PUT('/installation/people/{id}/ownership', {
      params: { path: { id } },
      body: { is_owner: isOwner },
    }),
  );

/** One's own account, and where one is signed in. */
export function useAccount() {
  return useRead(
    'cycle',
    () => ['account'],
    async () => unwrap(await api.GET('/account')),
  );
}

export const renameMe = async (name: string): Promise<Api['AccountPage']> =>
  unwrap(await api.PATCH('/account', { body: { name } }));

/** Says how one wants to work. */
export const savePreferences = async (body: Api['PreferencesRequest']): Promise<Api['AccountPage']> =>
  unwrap(await api.PATCH('/account/preferences', { body }));

/** Changes the password; every other session ends. */
export const changePassword = async (body: Api['PasswordRequest']): Promise<Api['AccountPage']> =>
  unwrap(await api.PUT('/account/password', { body }));

export const endSession = async (session: string): Promise<Api['AccountPage']> =>
  unwrap(await api.DELETE('/account/sessions/{session}', { params: { path: { session } } }));

/** Ends every session but this one. */
export const endOtherSessions = async (): Promise<Api['AccountPage']> =>
  unwrap(await api.DELETE('/account/sessions'));

/** Begins to set up a second factor. */
export const beginFactor = async (): Promise<Api['NewFactor']> =>
  unwrap(await api.POST('/account/second-factor'));

/** Shows a code of it; from now on it is asked for. Answers recovery codes, told this once. */
export const confirmFactor = async (code: string): Promise<string[]> =>
  unwrap(await api.PUT('/account/second-factor', { body: { code } })).codes;

export const dropFactor = async (password: string): Promise<Api['AccountPage']> =>
  unwrap(await api.POST('/account/second-factor-removals', { body: { password } }));

/** Takes the second factor of somebody who lost it. */
export const takeFactor = async (id: string): Promise<Api['InstallationPage']> =>
  unwrap(await api.POST('/installation/people/{id}/factor-removals', { params: { path: { id } } }));

/** Deletes an archived project with everything in it. */
export const deleteProject = async (
  id: string,
  body: Api['DeletionRequest'],
): Promise<Api['InstallationPage']> =>
  unwrap(await api.POST('/installation/projects/{id}/deletions', { params: { path: { id } }, body }));

/** Sends a mail to oneself, to see whether sending works. */
export const tryMail = async (): Promise<Api['ServiceTest']> =>
  unwrap(await api.POST('/installation/mail-tests'));

/** Writes a file and reads it back, to see whether storage works. */
export const tryStorage = async (): Promise<Api['ServiceTest']> =>
  unwrap(await api.POST('/installation/storage-tests'));
