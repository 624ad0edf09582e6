<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use Illuminate\Contracts\Container\Container;
use LucidStep\App\Areas\Walk\Actions\AddEvidence;
use LucidStep\App\Areas\Walk\Actions\ChangeEvidence;
use LucidStep\App\Areas\Walk\Actions\ClaimIdleTime;
use LucidStep\App\Areas\Walk\Actions\FinishAttempt;
use LucidStep\App\Areas\Walk\Actions\RecordComparison;
use LucidStep\App\Areas\Walk\Actions\RecordEnvironment;
use LucidStep\App\Areas\Walk\Actions\RecordRetry;
use LucidStep\App\Areas\Walk\Actions\RecordVerdict;
use LucidStep\App\Areas\Walk\Actions\SkipOrRepeatRound;
use LucidStep\App\Areas\Walk\Actions\WriteNote;

/**
 * Every kind of command: what it is restored to, and what applies it. A new kind is one line here.
 */
final readonly class CommandRegistry
{
    /** @var array<class-string<AttemptCommand>, class-string> */
    private const HANDLERS = [
        VerdictCommand::class => RecordVerdict::class,
        NoteCommand::class => WriteNote::class,
        RetryCommand::class => RecordRetry::class,
        RoundCommand::class => SkipOrRepeatRound::class,
        IdleTimeCommand::class => ClaimIdleTime::class,
        EnvironmentCommand::class => RecordEnvironment::class,
        FinishCommand::class => FinishAttempt::class,
        AddEvidenceCommand::class => AddEvidence::class,
        CaptionCommand::class => ChangeEvidence::class,
        MoveEvidenceCommand::class => ChangeEvidence::class,
        MarkUpCommand::class => ChangeEvidence::class,
        RedactCommand::class => ChangeEvidence::class,
        RemoveEvidenceCommand::class => ChangeEvidence::class,
        CompareCommand::class => RecordComparison::class,
    ];

    /** @var array<string, \Closure(Payload): AttemptCommand> */
    private array $restored;

    public function __construct(private Container $container)
    {
        $this->restored = [
            'verdict_given' => VerdictCommand::fromPayload(...),
            'note_written' => NoteCommand::fromPayload(...),
            'tried' => RetryCommand::fromPayload(...),
            'round_skip' => RoundCommand::fromPayload(...),
            'round_take_up' => RoundCommand::fromPayload(...),
            'round_repeat' => RoundCommand::fromPayload(...),
            'away_decided' => IdleTimeCommand::fromPayload(...),
            'surroundings_said' => EnvironmentCommand::fromPayload(...),
            'finished' => FinishCommand::fromPayload(...),
            'evidence_added' => AddEvidenceCommand::fromPayload(...),
            'evidence_captioned' => CaptionCommand::fromPayload(...),
            'evidence_moved' => MoveEvidenceCommand::fromPayload(...),
            'evidence_marked' => MarkUpCommand::fromPayload(...),
            'evidence_redacted' => RedactCommand::fromPayload(...),
            'evidence_removed' => RemoveEvidenceCommand::fromPayload(...),
            'compared' => CompareCommand::fromPayload(...),
        ];
    }

    /**
     * @param  array<array-key, mixed>  $payload as {@see AttemptCommand::payload()} gave it
     */
    public function restore(string $kind, array $payload): AttemptCommand
    {
        $restore = $this->restored[$kind] ?? throw new \LogicException("There is no command of the kind {$kind}.");
        // What an older release kept of a change of evidence lies one level deeper.
        $becomes = \is_array($payload['becomes'] ?? null) ? $payload['becomes'] : [];

        return $restore(new Payload([...$payload, ...$becomes]));
    }

    /**
     * @return CommandHandler<AttemptCommand>
     */
    public function handler(AttemptCommand $command): CommandHandler
    {
        /** @var CommandHandler<AttemptCommand> $handler by the list above, which pairs each command with its own */
        $handler = $this->container->make(self::HANDLERS[$command::class]);

        return $handler;
    }

    /**
     * @return list<string> every kind that can wait
     */
    public function kinds(): array
    {
        return array_keys($this->restored);
    }
}
