<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

use LucidStep\Core\Verdict\EntryState;

/**
 * What must be known of an entry to say whether it can be walked, and by whom.
 */
final readonly class EntryFacts
{
    /**
     * @param  string  $name      what people call it in reasons, such as "SKR-C14"
     * @param  ?string  $assignee  the person it is assigned to
     * @param  ?string  $openWith  the person with an open attempt on it
     * @param  ?\DateTimeImmutable  $notBefore inclusive
     * @param  ?\DateTimeImmutable  $notAfter  exclusive
     * @param  list<string>  $stoppedBy entries whose fail or block stops it
     */
    public function __construct(
        public string $id,
        public string $name,
        public EntryState $state,
        public ?string $assignee = null,
        public ?string $openWith = null,
        public ?\DateTimeImmutable $notBefore = null,
        public ?\DateTimeImmutable $notAfter = null,
        public array $stoppedBy = [],
    ) {}
}
