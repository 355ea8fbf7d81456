module Records
  # Another time an invited person offers for a meeting (RFC 5546 3.2.7).
  class OfferedTime < Base
    belongs_to :person, class_name: "Records::Person"
    belongs_to :meeting, class_name: "Records::Meeting"
  end
end
