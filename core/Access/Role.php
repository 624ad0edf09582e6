<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * What a person is in a project.
 */
enum Role: string
{
    case Admin = 'admin';
    case Lead = 'lead';
    case Tester = 'tester';
    case Developer = 'developer';
    case Reader = 'reader';

    /**
     * Whether they may all that another role may.
     */
    public function isAtLeast(self $role): bool
    {
        $up = [self::Reader, self::Developer, self::Tester, self::Lead, self::Admin];

        return array_search($this, $up, true) >= array_search($role, $up, true);
    }

    /**
     * Whether they plan, review and record for others.
     */
    public function leads(): bool
    {
        return self::Admin === $this || self::Lead === $this;
    }

    /**
     * Whether they walk entries and file defects.
     */
    public function records(): bool
    {
        return $this->leads() || self::Tester === $this;
    }

    /**
     * Whether they work on defects.
     */
    public function worksOnDefects(): bool
    {
        return $this->records() || self::Developer === $this;
    }
}
