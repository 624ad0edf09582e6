<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

/**
 * What is done with evidence that is there. That of a sealed attempt is never changed: it is done with a copy.
 */
interface EvidenceCommand extends AttemptCommand
{
    public function evidenceId(): string;
}
