<?php

return [LucidStep\App\Providers\AppServiceProvider::class];
