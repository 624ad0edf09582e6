<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CaptionCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\EvidenceCommand;
use LucidStep\App\Areas\Walk\Commands\MarkUpCommand;
use LucidStep\App\Areas\Walk\Commands\MoveEvidenceCommand;
use LucidStep\App\Areas\Walk\Commands\RedactCommand;
use LucidStep\App\Areas\Walk\Commands\RemoveEvidenceCommand;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Record\Markup;

/**
 * Captions a piece of evidence, moves it to another step, draws on it, hides parts of it, or takes it off. The record keeps
 * all of it. Evidence of another attempt, one that is sealed, is never changed: it is done with a copy in this one. Only
 * what was hidden goes out of the sealed one too, with its trace.
 *
 * @implements CommandHandler<EvidenceCommand>
 */
final readonly class ChangeEvidence implements CommandHandler
{
    public function __construct(private Journal $journal, private RemoveContent $removal) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $original =
            Evidence::query()->find($command->evidenceId()) ??
            throw ValidationException::withMessages(['evidence' => 'This evidence is not there any more.']);
        $copied = $original->attempt_id !== $context->attempt->id;
        $evidence = $copied ? $this->copy($original, $context->attempt) : $original;
        $shown = array_filter([$original->sha256, $original->marked_sha256]);
        // The event names what the person had before them, wherever the change is made.
        [$event, $fields, $hashes] = $this->change($command, $original);
        if (!$copied || !($command instanceof RemoveEvidenceCommand)) {
            $evidence->fill($fields)->save();
        }
        $this->journal->append($context->attempt, $context->actor, $command->kind(), $event, $context->stamp, $hashes);
        if ($command instanceof RedactCommand) {
            foreach ($shown as $sha256) {
                $this->removal->file(
                    $original->attempt_id,
                    $original->project_id,
                    $sha256,
                    $context->actor,
                    'Redacted by whoever captured it',
                );
            }
        }
    }

    /**
     * @return array{array<string, scalar|null>, array<string, mixed>, list<string>} what the event says, which columns
     *                                                                               change, and the hashes it is about
     */
    private function change(EvidenceCommand $command, Evidence $e): array
    {
        $own = array_values(array_filter([$e->sha256]));

        return match (true) {
            $command instanceof CaptionCommand => [
                ['evidence' => $e->id, 'from' => $e->caption, 'to' => $command->caption],
                ['caption' => $command->caption],
                $own,
            ],
            $command instanceof MoveEvidenceCommand => [
                ['evidence' => $e->id, 'round' => $command->round, 'step' => $command->step],
                ['round' => $command->round, 'step' => $command->step],
                $own,
            ],
            $command instanceof MarkUpCommand => [
                [
                    'evidence' => $e->id,
                    'shapes' => \count((array) ($command->markup['shapes'] ?? [])),
                    'markup_sha256' => Markup::hash($command->markup ?? []),
                ],
                ['markup' => null === $command->markedSha256 ? null : $command->markup, 'marked_sha256' => $command->markedSha256],
                array_values(array_filter([$command->markedSha256])),
            ],
            $command instanceof RedactCommand => [
                ['evidence' => $e->id, 'from' => $e->sha256],
                ['sha256' => $command->sha256, 'marked_sha256' => null, 'markup' => null],
                [$command->sha256],
            ],
            $command instanceof RemoveEvidenceCommand => [['evidence' => $e->id], ['removed_at' => Carbon::now()], $own],
            default => throw new \LogicException('There is no such change of evidence: ' . $command::class),
        };
    }

    /**
     * The same picture in the attempt that takes in what came late: what was done with it before stays done.
     */
    private function copy(Evidence $evidence, Attempt $attempt): Evidence
    {
        return Evidence::query()->where('attempt_id', $attempt->id)->where('copy_of_id', $evidence->id)->first() ??
            $evidence->replicate()->fill([
                'id' => (string) Str::uuid7(),
                'attempt_id' => $attempt->id,
                'copy_of_id' => $evidence->id,
                'created_at' => $evidence->created_at,
            ]);
    }
}
