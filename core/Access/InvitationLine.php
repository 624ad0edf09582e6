<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * One line of a list of people to invite.
 */
final readonly class InvitationLine
{
    /**
     * @param  int  $number counted from one, as it stands in the text
     * @param  string  $text as it was typed
     * @param  string  $email in lower case; empty when there is none
     * @param  string  $name as it stands beside the address; may be empty
     * @param  string  $role named in the line, or the one for all
     * @param  ?string  $problem why nobody can be invited by it
     */
    public function __construct(
        public int $number,
        public string $text,
        public string $email,
        public string $name,
        public string $role,
        public ?string $problem = null,
    ) {}
}
