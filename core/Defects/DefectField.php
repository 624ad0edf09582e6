<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

use LucidStep\Core\Access\Permission;

/**
 * What can be changed of a defect, each by itself; fields that a project added go by `custom.` and their id.
 */
enum DefectField: string
{
    case Title = 'title';
    case Preconditions = 'preconditions';
    case Steps = 'steps';
    case Expected = 'expected';
    case Actual = 'actual';
    case Environment = 'environment';
    case Body = 'body';
    case Severity = 'severity';
    case Priority = 'priority';
    case Assignee = 'assignee_id';
    case Build = 'build_id';
    case Configuration = 'configuration_id';
    case Component = 'component';
    case Labels = 'labels';

    public const CUSTOM = 'custom.';

    /**
     * Whether it is what somebody worded: never nothing, and not kept by the history, since words may have to be taken out.
     */
    public function isWords(): bool
    {
        return match ($this) {
            self::Title, self::Preconditions, self::Steps, self::Expected, self::Actual, self::Environment, self::Body => true,
            default => false,
        };
    }

    /**
     * What it is where nothing is said.
     */
    public function emptyValue(): ?string
    {
        return $this->isWords() || self::Component === $this || self::Labels === $this ? '' : null;
    }

    /**
     * Who changes a field: developers order their work, and word nothing anew.
     *
     * @param  string  $name of one of these, or of a project's own
     */
    public static function needs(string $name): Permission
    {
        return self::tryFrom($name)?->isWords() ?? false ? Permission::FileDefects : Permission::WorkOnDefects;
    }
}
