<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

use LucidStep\Core\Access\Permission;

/**
 * What can be changed of a defect, each by itself.
 */
enum DefectField: string
{
    case Title = 'title';
    case Body = 'body';
    case Expected = 'expected';
    case Actual = 'actual';
    case Severity = 'severity';
    case Priority = 'priority';
    case Assignee = 'assignee_id';

    /**
     * Whether it is what somebody worded: never nothing, and not kept by the history, since words may have to be taken out.
     */
    public function isWords(): bool
    {
        return match ($this) {
            self::Title, self::Body, self::Expected, self::Actual => true,
            self::Severity, self::Priority, self::Assignee => false,
        };
    }

    /**
     * Who changes it: developers order their work, and word nothing anew.
     */
    public function needs(): Permission
    {
        return $this->isWords() ? Permission::FileDefects : Permission::WorkOnDefects;
    }
}
