module Records
  # Written by whoever books somebody, so that no two do at the same moment, on several servers too.
  class HostTurn < Base
    self.primary_key = "person_id"

    # Inside a transaction: everybody else who wants one of them waits until it has ended.
    # @param person_ids [Array<String>]
    def self.take(person_ids)
      # In one order, so that two never wait for each other.
      person_ids.sort.each do |id|
        connection.exec_query(sanitize_sql(
          ["insert into host_turns (person_id, number) values (?, 1) on duplicate key update number = number + 1", id]
        ))
      end
    end
  end
end
