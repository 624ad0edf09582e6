<?php

declare(strict_types=1);

namespace LucidStep\Core\People;

/**
 * How a person is told of something.
 */
final readonly class NoticeChoice
{
    /**
     * @param  bool  $here whether in the application
     * @param  bool  $mail whether by mail
     */
    public function __construct(public bool $here, public bool $mail) {}
}
