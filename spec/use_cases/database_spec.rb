require_relative "../app_helper"

# What the database refuses for a moment is done again, whole (errors 1205 and 1213 of MariaDB; 1047 of a cluster's
# node).
RSpec.describe Records::Base, :timeless do
  def failing(times, error)
    left = times
    -> { ((left -= 1) >= 0) ? raise(error) : "done" }
  end

  {
    "a deadlock" => -> { ActiveRecord::Deadlocked.new("1213: Deadlock found when trying to get lock") },
    "a lock waited for too long" => -> { ActiveRecord::LockWaitTimeout.new("1205: Lock wait timeout exceeded") },
    "a node that is not ready" => -> do
      ActiveRecord::StatementInvalid.new("1047: WSREP has not yet prepared node for application use")
    end
  }.each do |situation, error|
    it "does a whole write again after #{situation}" do
      try = failing(2, error.call)
      id = nil
      outcome = described_class.write do
        id = Records::Key.make
        Records::Person.create!(id: id, name: "Wen", email: "wen@skerrybuoy.example", time_zone: "UTC")
        try.call
      end
      expect([outcome, Records::Person.pluck(:id)]).to eq ["done", [id]]
    end
  end

  it "does not do again what is wrong, and leaves nothing of it" do
    tries = 0
    expect {
      described_class.write do
        tries += 1
        Records::Person.create!(id: Records::Key.make, name: "Wen", email: "wen@skerrybuoy.example", time_zone: "UTC")
        raise ActiveRecord::StatementInvalid, "1064: You have an error in your SQL syntax"
      end
    }.to raise_error(ActiveRecord::StatementInvalid)
    expect([tries, Records::Person.count]).to eq [1, 0]
  end

  it "lets an inner write belong to the outer one" do
    try = failing(1, ActiveRecord::Deadlocked.new("1213"))
    described_class.write do
      described_class.write do
        Records::Person.create!(id: Records::Key.make, name: "Wen", email: "wen@skerrybuoy.example", time_zone: "UTC")
      end
      try.call
    end
    expect(Records::Person.count).to eq 1
  end
end
