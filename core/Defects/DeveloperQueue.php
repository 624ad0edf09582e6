<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * What a defect is to a developer, in the order in which they come to it.
 */
enum DeveloperQueue: string
{
    case Reopened = 'reopened';
    case WithMe = 'with_me';
    case AskedBack = 'asked_back';
    case Nobody = 'nobody';
    case Fixed = 'fixed';

    /** The gravest first. */
    public const SEVERITIES = ['critical', 'major', 'minor', 'trivial'];

    /**
     * @param  bool  $mine whether it is assigned to them
     * @param  bool  $assigned whether it is assigned to anybody
     *
     * @return ?self null when it is nothing to them: done, or with somebody else
     */
    public static function of(DefectState $state, bool $mine, bool $assigned): ?self
    {
        return match (true) {
            $state->isClosed() => null,
            DefectState::Reopened === $state => self::Reopened,
            !$assigned => \in_array($state, [DefectState::New, DefectState::Accepted], true) ? self::Nobody : null,
            !$mine => null,
            DefectState::NeedsInformation === $state => self::AskedBack,
            DefectState::Fixed === $state => self::Fixed,
            default => self::WithMe,
        };
    }

    /**
     * Where it stands among others: by what it is, then the gravest first.
     *
     * @return array{int, int}
     */
    public function place(string $severity): array
    {
        return [(int) array_search($this, self::cases(), true), (int) array_search($severity, self::SEVERITIES, true)];
    }
}
