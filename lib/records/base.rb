module Records
  # What all tables share, and the one way to write to them.
  class Base < ActiveRecord::Base
    self.abstract_class = true
    attribute :id, :string, default: -> { Key.make }

    # Worth another try: a deadlock, a lock not got in time, a connection lost, a cluster node not ready.
    AGAIN = [ActiveRecord::Deadlocked, ActiveRecord::LockWaitTimeout, ActiveRecord::ConnectionFailed,
      ActiveRecord::ConnectionNotEstablished, ActiveRecord::QueryAborted].freeze
    AGAIN_CODES = /\b(1047|1180|1205|1213|1317)\b/
    DEADLINE_S = 8
    # The database answers by then, or the connection is given up (config/settings.rb).
    LONGEST_TRY_S = 35

    class << self
      # Runs a whole transaction, and the whole of it again when the database could not finish it. The block may
      # therefore run several times and touches nothing but the database. Nested calls join the outermost.
      def write(&block)
        return yield if @@writing.value

        deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + DEADLINE_S
        pause_s = 0.02
        begin
          @@writing.value = true
          transaction(&block)
        rescue *AGAIN, ActiveRecord::StatementInvalid => error
          raise unless again?(error) && Process.clock_gettime(Process::CLOCK_MONOTONIC) < deadline

          connection_pool.disconnect! if error.message.match?(/\b1047\b/)
          sleep pause_s * (0.5 + Random.rand)
          pause_s = [pause_s * 2, 1.0].min
          retry
        ensure
          @@writing.value = false
        end
      end

      # Whether a transaction is open in this thread.
      def writing? = @@writing.value

      # For what no record stands for. @return [Array<Array>] as the database gives it
      def rows(sql, *values)
        connection_pool.with_connection { |connection| connection.select_rows(sanitize_sql([sql, *values])) }
      end

      # Reads what records belong to or have, in a query for each kind at most.
      # @param known [Array<Base>] read already, so that they are not asked for again
      # @return [Array<Base>] the records
      def fill(records, *associations, known: [])
        records = records.to_a
        ActiveRecord::Associations::Preloader
          .new(records: records, associations: associations, available_records: known).call
        records
      end

      # When a row was made and changed.
      def current_time_from_proper_timezone = Clock.now

      private

      def again?(error) = AGAIN.any? { |kind| error.is_a?(kind) } || error.message.match?(AGAIN_CODES)
    end

    @@writing = Concurrent::ThreadLocalVar.new(false)
  end
end
