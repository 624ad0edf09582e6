<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\Core\Record\FreeText;

/**
 * Takes the words of a question or a suggestion out, and of its answer, wherever else they stand. The trace stays.
 */
final readonly class RemoveMessage
{
    public function __construct(private PublishChange $publish) {}

    /**
     * @throws AlreadyDone when they are out already
     */
    public function __invoke(CaseMessage $message, User $by, string $reason): CaseMessage
    {
        $message = CaseMessage::query()->lockForUpdate()->findOrFail($message->id);
        $texts = array_values(
            array_filter(
                [$message->body, $message->answer, ...array_values($message->proposal ?? [])],
                static fn(mixed $t): bool => \is_string($t) && '' !== trim($t) && FreeText::REMOVED !== $t,
            ),
        );
        if ([] === $texts) {
            throw AlreadyDone::removed();
        }
        $message->update([
            'body' => '' === $message->body ? '' : FreeText::REMOVED,
            'answer' => '' === $message->answer ? '' : FreeText::REMOVED,
            'proposal' => null,
            'removed_by_id' => $by->id,
            'removed_reason' => $reason,
        ]);
        TakeOut::of($message->project_id, $message->case_id, array_map(strval(...), $texts));
        TakeOut::storedAnswers(
            array_values(array_filter([$message->author_id, $message->answered_by_id])),
            $message->created_at,
            array_map(strval(...), $texts),
        );
        DB::table('removals')->insert([
            'id' => (string) Str::uuid7(),
            'project_id' => $message->project_id,
            'attempt_id' => null,
            'kind' => 'message',
            'subject' => $message->id,
            'reason' => $reason,
            'actor_id' => $by->id,
            'at' => Carbon::now(),
        ]);
        ($this->publish)($message->project_id, 'case', $message->case_id);

        return $message->refresh()->load('case', 'author', 'answeredBy', 'removedBy');
    }
}
