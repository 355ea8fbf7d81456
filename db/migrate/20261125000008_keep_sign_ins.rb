# Sign-ins that can be ended, links to choose a password by, whose key is whose, what is counted by all processes, and
# private links that change when somebody is taken off.
class KeepSignIns < ActiveRecord::Migration[7.2]
  def change
    make_sessions
    make_sign_in_links
    make_keys
    make_counts
    make_link_serials
    # As whoever passed it on has called them: a link must not tell who has an address.
    add_column :substitutes, :given_name, :string, limit: 120, null: false, default: ""
    reversible { |direction| direction.up { execute "update substitutes join people on people.id = substitutes.person_id set given_name = people.name" } }
  end

  private

  def key(table, name, **options) = table.string(name, limit: 36, collation: "ascii_bin", **options)

  def make_table(name, &) = create_table(name, id: {type: :string, limit: 36, collation: "ascii_bin"}, &)

  # `token_digest`: SHA-256 of what the browser holds.
  def make_sessions
    make_table :sessions do |t|
      key t, :person_id, null: false
      t.string :token_digest, limit: 64, null: false, collation: "ascii_bin"
      t.string :program, limit: 120
      t.datetime :seen_at, null: false
      t.datetime :ended_at
      t.timestamps
      t.index :token_digest, unique: true
      t.index %i[person_id ended_at]
    end
    add_foreign_key :sessions, :people
  end

  def make_sign_in_links
    make_table :sign_in_links do |t|
      key t, :person_id, null: false
      t.string :kind, limit: 20, null: false, collation: "ascii_bin"
      t.string :token_digest, limit: 64, null: false, collation: "ascii_bin"
      t.datetime :expires_at, null: false
      t.datetime :used_at
      t.timestamps
      t.index :token_digest, unique: true
      t.index :person_id
      t.check_constraint "`kind` in ('invited','forgotten')", name: "sign_in_links_kind"
    end
    add_foreign_key :sign_in_links, :people
  end

  # Who has made what with a key of their own, and where.
  def make_keys
    make_table :made_keys do |t|
      t.string :kind, limit: 40, null: false, collation: "ascii_bin"
      key t, :made_by_id
      key t, :within_id
      t.datetime :created_at, null: false
      t.index :created_at
    end
  end

  def make_counts
    create_table :counts, id: {type: :string, limit: 190, collation: "utf8mb4_bin"} do |t|
      t.integer :number, null: false
      t.datetime :expires_at, null: false
      t.index :expires_at
    end
  end

  def make_link_serials
    make_table :link_serials do |t|
      key t, :series_id, null: false
      key t, :person_id, null: false
      t.integer :serial, null: false
      t.timestamps
      t.index %i[series_id person_id], unique: true
    end
    add_foreign_key :link_serials, :series
    add_foreign_key :link_serials, :people
  end
end
