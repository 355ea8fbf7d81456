require "etc"

module Api
  # Ends a request that computes for too long, so that one whose text nobody foresaw cannot take a processor for ever.
  # What counts is the processor's time of its thread, not the clock's: who waits for a lock of the database, for a slow
  # reader, or for others that compute is not cut off (decision 0038).
  class CutOff
    MOST_S = 5
    LOOKS_EVERY_S = 0.5

    # Raised in the thread of the request. No StandardError: nothing on the way takes it for a fault of its own.
    TooLong = Class.new(Exception) # rubocop:disable Lint/InheritException

    # A request: its thread, what that had used of a processor when it came, how much it may use, whether it was ended.
    Run = Struct.new(:thread, :from_s, :most_s, :ended, keyword_init: true)

    @runs = []
    @lock = Mutex.new
    class << self
      # @yield a request, in the thread that computes it
      def watching(run)
        @lock.synchronize { @runs << run }
        look_on
        yield
      ensure
        # Under the lock, so that nothing is raised in a thread that has gone on to the next request.
        @lock.synchronize { @runs.delete(run) }
      end

      # Of Linux: ticks as user and for the system (proc(5)).
      # @return [Float] seconds
      def used_s(thread)
        fields = File.read("/proc/self/task/#{thread.native_thread_id}/stat").rpartition(")").last.split
        fields.values_at(11, 12).sum(&:to_i) / TICKS
      rescue SystemCallError
        0.0
      end

      private

      # One thread looks after all; after a fork there is none yet.
      def look_on
        return if @looking&.alive?

        @lock.synchronize do
          @looking = Thread.new { loop { sleep(LOOKS_EVERY_S) && cut } } unless @looking&.alive?
        end
      end

      def cut = @lock.synchronize do
        long, @runs = @runs.partition { |run| used_s(run.thread) - run.from_s > run.most_s }
        long.each do |run|
          run.ended = true
          run.thread.raise(TooLong)
        end
      end
    end

    TICKS = Etc.sysconf(Etc::SC_CLK_TCK).to_f

    def initialize(app, most_s: MOST_S)
      @app = app
      @most_s = most_s
    end

    def call(env)
      run = Run.new(thread: Thread.current, from_s: CutOff.used_s(Thread.current), most_s: @most_s, ended: false)
      answer =
        begin
          CutOff.watching(run) { @app.call(env) }
        rescue TooLong
          nil
        end
      run.ended ? ended(env) : answer
    end

    private

    # It was ended in the middle of whatever it was: what it had open is not used again, and no half of it is kept. What
    # was whole before stays, so nothing is said of that.
    def ended(env)
      Records::Base.connection_pool.active_connection&.throw_away!
      Log.refused(503, "too-long", "#{env["REQUEST_METHOD"]} #{env["PATH_INFO"].to_s[%r{\A/api/[a-z-]+}]}")
      status, headers, body =
        Problem.response(503, "too-long", "This took too long and was ended. Load the page again to see what is kept.")
      [status, headers.merge("retry-after" => "60"), body]
    end
  end
end
