# What goes on without anybody waiting: handing over mail, laying out further dates, sweeping.
class Worker
  PAUSE_S = 0.5
  SWEEP_EVERY_S = 60

  def initialize(post: Mailing::Smtp.new(Settings.smtp), texts: Settings.texts && Mailing::Smpp.new(Settings.texts), fetcher: Fetching.new, clock: Time, log: $stderr)
    @post = post
    @texts = texts
    @fetcher = fetcher
    @clock = clock
    @log = log
    @swept_at = Time.at(0)
  end

  # Until `stop`. A failure of the database is waited out. Calendars are read beside the mail, so that a long one holds
  # nothing up.
  def run
    reader = Thread.new { look_after_what_came_in }
    until @stopped
      sleep PAUSE_S if round.zero?
    end
    reader.join
  ensure
    close
  end

  def stop = @stopped = true

  def look_after_what_came_in
    until @stopped
      sleep PAUSE_S unless read_what_came_in
    end
  end

  # @return [Integer] how many mails were tried
  def round
    sweep if @clock.now - @swept_at > SWEEP_EVERY_S
    UseCases::Outbox.new(clock: @clock).deliver(@post, texts: @texts).tap { |tried| close if tried.zero? }
  rescue ActiveRecord::ActiveRecordError => error
    tell(error)
    0
  end

  # @return [Boolean] whether there was mail that came in, or a calendar, to read
  def read_what_came_in
    calendars = UseCases::Calendars.new(clock: @clock)
    came_in = UseCases::IncomingMails.new(clock: @clock).read_next
    fetched = calendars.fetch_next(@fetcher)
    calendars.read_next || fetched || came_in
  rescue => error # whatever a file from outside has done, the next one is to be read
    tell(error)
    false
  end

  private

  def close = [@post, @texts].compact.each(&:close)

  def tell(error) = @log.puts "worker: #{error.class}: #{error.message.lines.first}"

  def sweep
    @swept_at = @clock.now
    UseCases::Reminders.new(clock: @clock).put_due
    UseCases::Series.new(clock: @clock).lay_out_further
    UseCases::Calendars.new(clock: @clock).renew
    UseCases::OutsideMeetings.new(clock: @clock).renew
    UseCases::Holds.new(clock: @clock).release_expired
    UseCases::IncomingMails.new(clock: @clock).sweep
    Records::Change.where("changed_at < ?", @swept_at - 3_600).in_batches(of: 1_000).delete_all
  end
end
