<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Data\CaseLine;
use LucidStep\App\Areas\Casebook\Data\CaseMessageLine;
use LucidStep\App\Areas\Casebook\Data\Inbox;
use LucidStep\App\Areas\Casebook\Exceptions\CaseConflict;
use LucidStep\App\Areas\Casebook\Queries\ResourceMapper;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\MessageState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Step;

/**
 * Questions and suggestions about cases, and what else waits for their authors.
 */
final readonly class CaseMessages
{
    public function __construct(private CaseWriterFactory $writers, private PublishChange $announce) {}

    /**
     * @param  array<string, mixed>  $input kind, step, body, proposal
     */
    public function ask(TestCase $case, User $user, array $input): CaseMessageLine
    {
        $steps = $case->steps_count;
        $step = $input['step'] ?? null;
        if (null !== $step && ($step < 1 || $step > $steps)) {
            throw ValidationException::withMessages(['step' => "The case has {$steps} steps."]);
        }
        $proposal =
            'suggestion' === $input['kind'] && \is_array($input['proposal'] ?? null)
                ? Step::fromArray($input['proposal'])->toArray()
                : null;
        if (null !== $proposal && null === $step) {
            throw ValidationException::withMessages(['step' => 'Say which step the suggestion is for.']);
        }
        $body = trim((string) ($input['body'] ?? ''));
        if ('' === $body && null === $proposal) {
            throw ValidationException::withMessages([
                'body' => 'question' === $input['kind'] ? 'Write the question.' : 'Write what you suggest.',
            ]);
        }
        $message = CaseMessage::query()
            ->create([
                'project_id' => $case->project_id,
                'case_id' => $case->id,
                'step' => $step,
                'kind' => $input['kind'],
                'body' => $body,
                'proposal' => $proposal,
                'author_id' => $user->id,
                'created_at' => Carbon::now(),
            ])
            ->refresh();
        ($this->announce)($case->project_id, 'case', $case->id);

        return ResourceMapper::message($message->load('case', 'author', 'answeredBy', 'removedBy'));
    }

    /**
     * @param  MessageState  $as what becomes of a suggestion; a question is answered
     *
     * @throws Conflict when it was answered already, or the step it is about is another by now
     */
    public function answer(CaseMessage $message, User $user, MessageState $as, string $answer): CaseMessageLine
    {
        $message = CaseMessage::query()->lockForUpdate()->with('case')->findOrFail($message->id);
        if (MessageState::Open !== $message->state) {
            throw AlreadyDone::answered();
        }
        if ('question' === $message->kind && '' === trim($answer)) {
            throw ValidationException::withMessages(['answer' => 'Write an answer.']);
        }
        if (MessageState::Taken === $as && null !== $message->proposal) {
            $this->take($message, $user);
        }
        $message->update([
            'state' => 'question' === $message->kind ? MessageState::Answered : $as,
            'answer' => trim($answer),
            'answered_by_id' => $user->id,
            'answered_at' => Carbon::now(),
        ]);
        ($this->announce)($message->project_id, 'case', $message->case_id);

        return ResourceMapper::message($message->load('case', 'author', 'answeredBy', 'removedBy'));
    }

    /**
     * @param  bool  $mine only for the cases that the person owns
     */
    public function inbox(Project $project, User $user, bool $mine): Inbox
    {
        $messages = CaseMessage::query()
            ->where('project_id', $project->id)
            ->where('state', MessageState::Open)
            ->whereHas('case', static fn($q) => $q->whereNull('binned_at')->when($mine, static fn($c) => $c->where('owner_id', $user->id)))
            ->with('case', 'author', 'answeredBy', 'removedBy')
            ->orderBy('id')
            ->limit(300)
            ->get();
        $cases = static fn(CaseState $state) => TestCase::query()
            ->where('project_id', $project->id)
            ->whereNull('binned_at')
            ->where('state', $state)
            ->when($mine, static fn($q) => $q->where('owner_id', $user->id))
            ->with('owner')
            ->orderBy('number')
            ->limit(200);
        $returned = $cases(CaseState::Draft)
            ->whereRaw(
                "(select kind from case_log where case_id = cases.id and kind in ('review_asked', 'approved', " .
                    "'returned') order by id desc limit 1) = 'returned'",
            )
            ->get();

        return new Inbox(
            array_values($messages->map(ResourceMapper::message(...))->all()),
            array_values($returned->map(static fn(TestCase $c): CaseLine => CaseLine::from($c))->all()),
            array_values($cases(CaseState::InReview)->get()->map(static fn(TestCase $c): CaseLine => CaseLine::from($c))->all()),
        );
    }

    private function take(CaseMessage $message, User $user): void
    {
        $case = $this->writers->lock($message->case_id);
        SaveCase::refuseBinned($case);
        $text = $case->version->text();
        $at = (int) $message->step - 1;
        $step = $text->steps[$at] ?? throw CaseConflict::stepIsGone((int) $message->step);
        if (null !== $step->routine) {
            throw CaseConflict::stepIsARoutine((int) $message->step);
        }
        $proposal = Step::fromArray($message->proposal ?? []);
        $steps = $text->steps;
        $steps[$at] = $step->with($proposal->action, $proposal->data, $proposal->expected);
        $writer = $this->writers->for(Project::query()->findOrFail($case->project_id), $user);
        $writer->change(
            $case,
            CaseText::fromArray([...$text->toArray(), 'steps' => array_map(static fn(Step $s): array => $s->toArray(), $steps)]),
            CaseFields::of($case),
            'edited',
            ['comment' => "Suggestion for step {$message->step} taken"],
        );
        $writer->end();
    }
}
