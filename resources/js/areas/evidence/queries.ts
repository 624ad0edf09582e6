import { api, unwrap, type Api } from '@/api/client';

/** How a picture differs from one of how it should look. */
export const readComparison = async (
  evidence: string,
  reference: string,
): Promise<Api['PictureComparison']> =>
  unwrap(
    await api.GET('/evidence/{evidence}/comparison', {
      params: { path: { evidence }, query: { reference } },
    }),
  );

/** Writes the difference into the record. */
export const saveComparison = async (evidence: string, reference: string): Promise<Api['CommandResult']> =>
  unwrap(
    await api.POST('/evidence/{evidence}/comparisons', {
      params: { path: { evidence } },
      body: { reference },
    }),
  );

/** Parts of a picture, in its pixels, that comparisons leave out. */
export async function saveIgnoredRegions(
  project: string,
  sha256: string,
  regions: Api['PictureRegion'][],
): Promise<void> {
  await api.PUT('/projects/{project}/files/{sha256}/ignored-regions', {
    params: { path: { project, sha256 } },
    body: { regions: regions.map((r) => ({ ...r })) },
  });
}

/** Takes a file out, every copy, for good; its trace stays. */
export async function removeFile(evidence: string, reason: string): Promise<void> {
  await api.POST('/evidence/{evidence}/removals', { params: { path: { evidence } }, body: { reason } });
}
