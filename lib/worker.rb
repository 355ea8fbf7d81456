# What goes on without anybody waiting: handing over mail, laying out further dates, sweeping.
class Worker
  PAUSE_S = 0.5
  SWEEP_EVERY_S = 300

  def initialize(post: Mailing::Smtp.new(Settings.smtp), clock: Time, log: $stderr)
    @post = post
    @clock = clock
    @log = log
    @swept_at = Time.at(0)
  end

  # Until `stop`. A failure of the database is waited out.
  def run
    until @stopped
      sleep PAUSE_S if round.zero?
    end
  ensure
    @post.close
  end

  def stop = @stopped = true

  # @return [Integer] how many mails were tried
  def round
    sweep if @clock.now - @swept_at > SWEEP_EVERY_S
    UseCases::Outbox.new(clock: @clock).deliver(@post).tap { |tried| @post.close if tried.zero? }
  rescue ActiveRecord::ActiveRecordError => error
    @log.puts "worker: #{error.class}: #{error.message.lines.first}"
    0
  end

  private

  def sweep
    @swept_at = @clock.now
    UseCases::Series.new(clock: @clock).lay_out_further
    Records::Change.where("changed_at < ?", @swept_at - 3_600).in_batches(of: 1_000).delete_all
  end
end
