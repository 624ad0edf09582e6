<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

/**
 * What a trace begins from.
 */
enum TraceKind: string
{
    case Requirement = 'requirement';
    case TestCase = 'case';
    case Cycle = 'cycle';
    case Entry = 'entry';
    case Attempt = 'attempt';
    case Defect = 'defect';
    case Session = 'session';
    case Evidence = 'evidence';

    public function table(): string
    {
        return match ($this) {
            self::Entry => 'entries',
            self::Session => 'test_sessions',
            self::Evidence => 'evidence',
            default => "{$this->value}s",
        };
    }

    /**
     * Whether it has no key of its own: only its id finds it.
     */
    public function isKeyless(): bool
    {
        return \in_array($this, [self::Entry, self::Attempt, self::Evidence], true);
    }
}
