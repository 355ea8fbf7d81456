module UseCases
  # Reads one calendar file through, for the worker: progress is written now and then, a cancelled one stops, a broken
  # one leaves what was known before.
  class CalendarReading < Base
    TELL_EVERY_S = 0.1

    Stopped = Class.new(StandardError)

    # @param calendar [Records::Calendar] as claimed from the queue
    def initialize(calendar, queue, **rest)
      super(**rest)
      @calendar = calendar
      @queue = queue
      @told_at = 0
    end

    def run
      owner = @calendar.person || @calendar.place
      read = Core::FreeBusy::Calendar.new(
        @calendar.incoming, zone: Core::Zone[owner.time_zone], addresses: [@calendar.person&.email].compact,
        ours: ours
      )
      tell(total: read.size)
      window = [now - Calendars::BACK_DAYS * 86_400, Core::Recurrence::Run.horizon(now)]
      spans = read.spans(*window) { |done| tell_now_and_then(done) }
      tell(done: read.size)
      Calendars.replace_spans(@calendar, spans, at: now)
      kept(read)
    rescue Core::Invalid => error
      @queue.settle(@calendar, state: "failed", incoming: nil, last_error: error.message[0, 500])
    rescue Stopped
      nil # cancelled, or replaced by a newer file
    end

    private

    def kept(read)
      @queue.settle(
        @calendar, source: @calendar.incoming, incoming: nil, state: "still", events: read.size,
        warnings: read.warnings.first(20), expanded_until: Core::Recurrence::Run.horizon(now), succeeded_at: now,
        last_error: nil
      )
    end

    # UIDs of our own invitations, which count by themselves.
    def ours = /@#{Regexp.escape(Settings.mail_domain)}\z/i

    def tell_now_and_then(done)
      at = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return if at - @told_at < TELL_EVERY_S

      @told_at = at
      tell(done: done)
    end

    def tell(**progress)
      if write { Records::Calendar.where(id: @calendar.id, claim: @calendar.claim).update_all(progress) }.zero?
        raise Stopped
      end
    end
  end
end
