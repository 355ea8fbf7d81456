module UseCases
  # How often something was tried, in the database, so that all processes and servers count together. In the words of
  # the cache that the API's throttle wants.
  class Counts < Base
    # @return [Integer] how many there are now
    def increment(key, amount, expires_in:)
      now = @clock.now.utc
      Records::Count.connection_pool.with_connection do |connection|
        connection.exec_query(
          Records::Count.sanitize_sql(
            [<<~SQL, key[0, 190], amount, now + expires_in, now, amount, amount, now, now + expires_in]
              insert into counts (id, number, expires_at) values (?, ?, ?)
              on duplicate key update number = if(expires_at < ?, ?, number + ?),
                expires_at = if(expires_at < ?, ?, expires_at)
            SQL
          )
        )
      end
      Records::Count.where(id: key[0, 190]).pick(:number)
    end

    def read(key) = Records::Count.where(id: key[0, 190]).where("expires_at > ?", @clock.now.utc).pick(:number)

    def write(key, value, expires_in: 3_600) =
      Records::Count.upsert({id: key[0, 190], number: value, expires_at: @clock.now.utc + expires_in})

    def delete(key) = Records::Count.where(id: key[0, 190]).delete_all

    def delete_matched(_pattern) = Records::Count.delete_all

    # For the worker.
    def sweep = Records::Count.where("expires_at < ?", @clock.now.utc).delete_all

    public :write
  end
end
