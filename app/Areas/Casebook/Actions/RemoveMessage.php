<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\MessageState;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
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
        $said = [$message->body, $message->answer, ...array_filter($message->proposal ?? [], is_string(...))];
        $texts = array_values(array_filter($said, static fn(string $t): bool => '' !== trim($t) && FreeText::REMOVED !== $t));
        if ([] === $texts) {
            throw AlreadyDone::removed();
        }
        $message->update([
            'body' => '' === $message->body ? '' : FreeText::REMOVED,
            'answer' => '' === $message->answer ? '' : FreeText::REMOVED,
            'proposal' => null,
            // Nobody has to answer what is not there any more.
            'state' => MessageState::Open === $message->state ? MessageState::Declined : $message->state,
            'removed_by_id' => $by->id,
            'removed_reason' => $reason,
        ]);
        TakeOut::of($message->project_id, $message->case_id, $texts);
        TakeOut::storedAnswers(array_values(array_filter([$message->author_id, $message->answered_by_id])), $message->created_at, $texts);
        Removals::add($message->project_id, null, 'message', $message->id, $reason, $by);
        ($this->publish)($message->project_id, 'case', $message->case_id);

        return $message->refresh()->load('case', 'author', 'answeredBy', 'removedBy');
    }
}
