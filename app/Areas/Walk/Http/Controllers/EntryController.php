<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Controllers;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Cycles\Actions\BlockDependents;
use LucidStep\App\Areas\Cycles\Data\BlockPreview;
use LucidStep\App\Areas\Walk\Actions\RecordFromList;
use LucidStep\App\Areas\Walk\Actions\RemoveEntryWords;
use LucidStep\App\Areas\Walk\Actions\RequestRetest;
use LucidStep\App\Areas\Walk\Data\EntryDetail;
use LucidStep\App\Areas\Walk\Data\ListVerdictResult;
use LucidStep\App\Areas\Walk\Http\Requests\ListVerdictRequest;
use LucidStep\App\Areas\Walk\Http\Requests\RetestRequest;
use LucidStep\App\Areas\Walk\Queries\ReadEntry;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * Entries: their attempts, verdicts given from the list, and retests.
 */
final readonly class EntryController
{
    public function __construct(private ReadEntry $read) {}

    #[Get('/entries/{entry}', 'An entry with all its attempts', EntryDetail::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Entry $entry): JsonResponse
    {
        return new JsonResponse(($this->read)($entry));
    }

    #[
        Post(
            '/cycles/{cycle}/list-verdicts',
            'Give entries their verdict from the list, without walking them',
            ListVerdictResult::class,
            ListVerdictRequest::class,
        ),
    ]
    #[Needs(Permission::Record)]
    public function judge(ListVerdictRequest $request, Cycle $cycle, RecordFromList $judge, Memberships $memberships): JsonResponse
    {
        $role = $memberships->sure($request->person(), $cycle->project_id);
        if (!$role->records()) {
            throw new AuthorizationException('Only those who record judge entries.');
        }
        $said = [
            'verdict' => $request->string('verdict')->toString(),
            'note' => $request->string('note')->toString(),
            'reason' => $request->string('reason')->toString(),
            'waits_on' => $request->string('waits_on')->toString(),
            'stops' => $request->boolean('stops'),
        ];

        return new JsonResponse(
            $judge($cycle, $request->person(), $role, array_values((array) $request->validated('ids')), $said, $request->stamp()),
        );
    }

    #[
        Get(
            '/cycles/{cycle}/stops',
            'What some entries would stop if they failed now',
            BlockPreview::class,
            query: ['ids' => 'The entries, between commas'],
        ),
    ]
    public function stops(Request $request, Cycle $cycle, BlockDependents $stops): JsonResponse
    {
        $ids = array_values(array_filter(explode(',', $request->query->getString('ids')), Str::isUuid(...)));
        $own = Entry::query()
            ->where('cycle_id', $cycle->id)
            ->whereIn('id', \array_slice($ids, 0, RecordFromList::MOST))
            ->pluck('id')
            ->all();

        return new JsonResponse($stops->previewAll($cycle, array_values($own)));
    }

    #[Post('/entries/{entry}/retests', 'Ask for an entry to be walked again', EntryDetail::class, RetestRequest::class, 201)]
    #[Needs(Permission::Lead)]
    public function retest(RetestRequest $request, Entry $entry, RequestRetest $ask): JsonResponse
    {
        Gate::authorize('askRetest', $entry);

        return new JsonResponse(($this->read)($ask($entry, $request->person(), $request->string('reason')->toString())), 201);
    }

    #[
        Post(
            '/entries/{entry}/removals',
            'Take the words out with which it was handed on; the trace stays',
            EntryDetail::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function remove(WhyRequest $request, Entry $entry, RemoveEntryWords $remove): JsonResponse
    {
        Gate::authorize('removeContent', ProjectLookup::find($entry->project_id));
        $remove($entry, $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse(($this->read)($entry->refresh()));
    }
}
