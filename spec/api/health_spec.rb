require_relative "../api_helper"

RSpec.describe "Health", :timeless do
  around { |example| Dir.mktmpdir { |dir| (@dir = dir) && example.run } }

  let(:heartbeat) { Heartbeat.new(@dir) }

  def age(name, seconds) = File.utime(Clock.machine - seconds, Clock.machine - seconds, File.join(@dir, name))

  it "is well while everything goes round" do
    heartbeat.beat("worker.mail")
    age("worker.mail", Heartbeat::LATE_S - 5)
    expect(Api::App.health(heartbeat: heartbeat)[0]).to eq 200
  end

  it "names what has not gone round in a minute" do
    %w[worker.mail worker.incoming entrance.greeting].each { |name| heartbeat.beat(name) }
    age("worker.incoming", 90)
    expect(Api::App.health(heartbeat: heartbeat)).to match [
      503, anything, [/\Aworker.incoming has not gone round for 9\d s\n\z/]
    ]
    expect([heartbeat.late("worker").keys, heartbeat.late("entrance")]).to eq [["worker.incoming"], {}]
  end

  it "says nothing of what a process left that is started anew" do
    heartbeat.beat("worker.mail")
    age("worker.mail", 600)
    heartbeat.forget("worker")
    expect(heartbeat.late).to eq({})
  end

  # As bin/start runs it: threads that beat, and one that hangs is seen.
  it "hears from each thread of the worker, and no more from one that hangs" do
    entered, hanging = Concurrent::Event.new, Concurrent::Event.new
    post = Object.new
    post.define_singleton_method(:deliver) { |**| entered.set && hanging.wait(300) }
    post.define_singleton_method(:close) {}
    UseCases::Outbox.new.put(
      reason: "x", to: Records::Person.find(person("Ines Torvald")), subject: "x", text: "x", html: "x"
    )
    worker = Worker.new(post: post, texts: nil, heartbeat: heartbeat, log: StringIO.new)
    thread = Thread.new { worker.run }
    names = %w[calls fetching incoming mail reading sweep].map { |name| "worker.#{name}" }
    entered.wait(60)
    Thread.pass until Dir.children(@dir).sort == names
    Dir.children(@dir).each { |name| age(name, 90) }
    Thread.pass until heartbeat.late.size <= 1
    expect(heartbeat.late.keys).to eq ["worker.mail"]
    worker.stop
    hanging.set
    thread.join
  end
end
